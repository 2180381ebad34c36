'use client';

import { useCallback, useRef, useState } from 'react';
import type { Command } from '@/core/batch/command';
import { withSwitched } from '@/core/batch/note';
import { nextPlace } from '@/core/batch/place';
import type { IntakeSettings } from '@/core/batch/settings';
import type { IntakeAct } from '@/services/intake/intake-act';
import type { LineView } from '@/services/intake/line-view';
import { newKey } from '@/ui/data/new-key';
import { play } from '@/ui/scan/sounds';
import { type Before, interpret } from './interpret';
import { usePresets } from './presets';
import { toneOf } from './tone-of';
import { useActs } from './use-acts';
import { useDoubts } from './use-doubts';
import { useLookedUp } from './use-looked-up';

type Given = {
  id: number;
  lines: LineView[];
  settings: IntakeSettings;
  change: (part: Partial<IntakeSettings>) => void;
  /** The sentences for the present grade, in the order in which they read. */
  snippets: readonly string[];
  /** The hand goes back to the scanner. */
  back: () => void;
};

/** What is said at the scan field, and what it brings about: scans, answers, commands, doubts. */
export function useSitting({ id, lines, settings, change, snippets, back }: Given) {
  const presets = usePresets();
  /** The last piece that was scanned here: its key; the newest line before that. */
  const [lastKey, setLastKey] = useState('');
  const [units, setUnits] = useState<number | null>(null);
  const [said, setSaid] = useState('');
  const { doubts, doubt, take } = useDoubts(id);
  const before = useRef<Before>(null);
  const lastText = useRef('');
  const keys = useRef<string[]>([]);
  const { add, ...sending } = useActs(id, (line, act) => {
    if (act.act === 'scan' || act.act === 'answer') play(toneOf(line).sound);
  });
  useLookedUp(id, lines, (line) => {
    const { sound } = toneOf(line);
    if (sound !== 'taken') play(sound);
  });
  const last = lines.find((line) => line.key === lastKey) ?? (lastKey === '' ? (lines[0] ?? null) : null);

  const scan = (text: string) => {
    const key = newKey();
    const given = units === null ? settings : { ...settings, quantity: units };
    // In the order in which they read, whichever was switched on first.
    const ordered = [
      ...snippets.filter((one) => settings.snippets.includes(one)),
      ...settings.snippets.filter((one) => !snippets.includes(one)),
    ];
    keys.current.push(key);
    lastText.current = text;
    setLastKey(key);
    setUnits(null);
    add({ act: 'scan', key, text, settings: { ...given, snippets: ordered } });
    if (settings.placeCounts === 'each' && settings.place) change({ place: nextPlace(settings.place) });
  };
  const answer = (more: Omit<Extract<IntakeAct, { act: 'answer' }>, 'act' | 'of'>) => {
    const of = last?.key;
    if (of) add({ act: 'answer', of, ...more });
  };
  const undo = () => {
    const isBack = (key: string) => lines.find((line) => line.key === key)?.isUndone === true;
    while (keys.current.length && isBack(keys.current.at(-1) ?? '')) keys.current.pop();
    const key = keys.current.pop() ?? lines.find((line) => !line.isUndone)?.key;
    if (!key) return setSaid('There is nothing to take back');
    setSaid('The last one is taken back');
    before.current = null;
    play('command');
    add({ act: 'undo', of: key });
  };
  const run = (command: Command) => {
    play('command');
    switch (command.do) {
      case 'undo':
        return undo();
      case 'again':
        return lastText.current ? scan(lastText.current) : setSaid('Nothing was scanned yet');
      case 'quantity':
        setUnits(command.units);
        return setSaid(`The next scan counts ${command.units}`);
      case 'box':
        if (!settings.place) return setSaid('No place is written, so there is no next one');
        change({ place: nextPlace(settings.place) });
        return setSaid(`Now into ${nextPlace(settings.place)}`);
      case 'grade':
        if (last?.needs[0]?.what === 'grade') return answer({ grade: command.grade });
        change({ grade: command.grade, snippets: command.grade === settings.grade ? settings.snippets : [] });
        return setSaid('');
      case 'snippet': {
        const one = snippets[command.number - 1];
        if (one) change({ snippets: withSwitched(settings.snippets, one) });
        return setSaid(one ? '' : `There is no sentence ${command.number} for this condition`);
      }
      case 'preset': {
        const preset = presets.find((one) => one.id === command.id);
        if (preset) change(preset.settings);
        return setSaid(preset ? `Settings: ${preset.name}` : 'These settings are not kept any more');
      }
      case 'yes': {
        const [first] = doubts;
        if (first) settle(first.id, true);
        return undefined;
      }
    }
  };
  const settle = (which: string, isTwice: boolean) => {
    const one = take(which);
    // Asked once: who has said so is not asked again for the next of them.
    before.current = null;
    if (isTwice && one) scan(one.text);
    back();
  };
  const submit = (text: string) => {
    const at = Date.now();
    const meant = interpret(text, at, last, before.current);
    setSaid('');
    switch (meant.is) {
      case 'command':
        return run(meant.command);
      case 'grade':
        return answer({ grade: meant.grade });
      case 'price':
        return answer({ price: meant.price });
      case 'entry':
        return answer({ entry: meant.entry });
      case 'doubt':
        play('needs');
        before.current = { text: meant.text, at };
        return doubt(meant.text);
      case 'scan':
        before.current = { text: meant.text.trim(), at };
        return scan(meant.text);
      case 'nothing':
        return setSaid('There is no such number');
    }
  };
  const undoLine = useCallback(
    (line: LineView) => {
      add({ act: 'undo', of: line.key });
      back();
    },
    [add, back],
  );
  const readAs = useCallback((line: LineView, text: string) => add({ act: 'answer', of: line.key, text }), [add]);
  return { last, said, setSaid, units, doubts, settle, submit, undo, answer, undoLine, readAs, run, sending };
}
