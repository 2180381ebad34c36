'use client';

import { RotateCcw, RotateCw } from 'lucide-react';
import { type PhotoRecipe, usualBackdrop } from '@/core/photo/recipe';
import { Layers } from './layers';

type Props = {
  recipe: PhotoRecipe;
  change: (part: Partial<PhotoRecipe>) => void;
  quarters: number;
  straighten: number;
  turn: (quarters: number, straighten: number) => void;
  shape: string;
  setShape: (shape: string) => void;
  ratio: number;
  setRatio: (ratio: number) => void;
  balance: { warmth: number; tint: number } | null;
  byItself: Pick<PhotoRecipe, 'brightness' | 'contrast' | 'warmth' | 'tint'> | null;
  placing: number | null;
  setPlacing: (layer: number | null) => void;
};

function Slider({
  label,
  value,
  min,
  max,
  step = 1,
  change,
}: {
  label: string;
  value: number;
  min: number;
  max: number;
  step?: number;
  change: (value: number) => void;
}) {
  return (
    <label className="grid grid-cols-[6rem_1fr_2.5rem] items-center gap-2">
      <span>{label}</span>
      <input
        type="range"
        className="range range-xs"
        min={min}
        max={max}
        step={step}
        value={value}
        onChange={(event) => change(Number(event.target.value))}
        onDoubleClick={() => change(0)}
      />
      <span className="figures text-right">{value}</span>
    </label>
  );
}

const shapes = [
  ['whole', 'Whole picture'],
  ['square', 'Square'],
  ['portrait', '4:5'],
  ['free', 'Free'],
] as const;
/** What can be done to a picture, in the order in which it is done. */
export function Controls(props: Props) {
  const { recipe, change, quarters, straighten, turn, shape, setShape, ratio, setRatio, balance } = props;
  const { byItself, placing, setPlacing } = props;
  return (
    <div className="space-y-4 text-[13px]">
      <fieldset className="space-y-1.5">
        <legend className="font-medium">Turn and crop</legend>
        <div className="flex gap-2">
          <button type="button" className="btn btn-sm" onClick={() => turn((quarters + 3) % 4, straighten)}>
            <RotateCcw size={14} aria-hidden="true" /> Left
          </button>
          <button type="button" className="btn btn-sm" onClick={() => turn((quarters + 1) % 4, straighten)}>
            <RotateCw size={14} aria-hidden="true" /> Right
          </button>
        </div>
        <Slider
          label="Straighten"
          min={-15}
          max={15}
          step={0.5}
          value={straighten}
          change={(value) => turn(quarters, value)}
        />
        <div role="group" aria-label="Shape" className="join">
          {shapes.map(([id, label]) => (
            <button
              key={id}
              type="button"
              aria-pressed={shape === id}
              className={`btn btn-xs join-item ${shape === id ? 'bg-base-300' : ''}`}
              onClick={() => setShape(id)}
            >
              {label}
            </button>
          ))}
        </div>
        {shape === 'free' ? (
          <Slider label="Width : height" min={0.4} max={2.5} step={0.05} value={ratio} change={setRatio} />
        ) : null}
      </fieldset>
      <fieldset className="space-y-1.5">
        <legend className="font-medium">Light and colour</legend>
        <Slider
          label="Brightness"
          min={-100}
          max={100}
          value={recipe.brightness}
          change={(brightness) => change({ brightness })}
        />
        <Slider
          label="Contrast"
          min={-100}
          max={100}
          value={recipe.contrast}
          change={(contrast) => change({ contrast })}
        />
        <Slider label="Warmth" min={-100} max={100} value={recipe.warmth} change={(warmth) => change({ warmth })} />
        <Slider label="Tint" min={-100} max={100} value={recipe.tint} change={(tint) => change({ tint })} />
        <button type="button" className="btn btn-xs" disabled={!balance} onClick={() => balance && change(balance)}>
          Make its grey parts grey
        </button>{' '}
        <button type="button" className="btn btn-xs" disabled={!byItself} onClick={() => byItself && change(byItself)}>
          By itself
        </button>
      </fieldset>
      <fieldset className="space-y-1.5">
        <legend className="font-medium">Backdrop</legend>
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="toggle toggle-xs"
            checked={recipe.backdrop !== null}
            onChange={(event) => change({ backdrop: event.target.checked ? usualBackdrop : null })}
          />
          White, from the edges inwards
        </label>
        {recipe.backdrop ? (
          <>
            <Slider
              label="Reach"
              min={1}
              max={100}
              value={recipe.backdrop.reach}
              change={(reach) => recipe.backdrop && change({ backdrop: { ...recipe.backdrop, reach } })}
            />
            <Slider
              label="Soft border"
              min={0}
              max={20}
              value={recipe.backdrop.softness}
              change={(softness) => recipe.backdrop && change({ backdrop: { ...recipe.backdrop, softness } })}
            />
          </>
        ) : null}
      </fieldset>
      <Layers recipe={recipe} change={change} placing={placing} setPlacing={setPlacing} />
    </div>
  );
}
