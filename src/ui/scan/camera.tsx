'use client';

import { Camera as CameraSign } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { codesIn, openReader } from './read-picture';

/** A picture is looked at so often, and what was read is not read again before it was out of sight for so long. */
const everyMs = 180;
const goneMs = 1_500;

/**
 * The camera of the phone or the machine as a scanner: live where the browser lets a page see, else by single pictures.
 * What is read goes the way of a scan.
 */
export function Camera({ scanned }: { scanned: (text: string) => void }) {
  const [isOn, setIsOn] = useState(false);
  const [problem, setProblem] = useState('');
  const video = useRef<HTMLVideoElement>(null);
  const latest = useRef(scanned);
  latest.current = scanned;
  useEffect(() => {
    if (!isOn) return;
    let isOver = false;
    let stream: MediaStream | null = null;
    let timer: ReturnType<typeof setTimeout>;
    const seen = new Map<string, number>();
    const look = async () => {
      const now = performance.now();
      const frame = video.current;
      if (frame && frame.videoWidth > 0)
        for (const code of await codesIn(frame, frame.videoWidth, frame.videoHeight).catch(() => [])) {
          if (now - (seen.get(code) ?? Number.NEGATIVE_INFINITY) > goneMs) latest.current(code);
          seen.set(code, now);
        }
      if (!isOver) timer = setTimeout(() => void look(), everyMs);
    };
    void (async () => {
      try {
        await openReader();
        stream = await navigator.mediaDevices.getUserMedia({ video: { facingMode: 'environment' } });
        if (isOver || !video.current) return;
        video.current.srcObject = stream;
        await video.current.play();
        void look();
      } catch {
        setIsOn(false);
        setProblem('The camera cannot be seen from here. Take single pictures instead');
      }
    })();
    return () => {
      isOver = true;
      clearTimeout(timer);
      for (const track of stream?.getTracks() ?? []) track.stop();
    };
  }, [isOn]);
  const readPicture = async (file: File | undefined) => {
    if (!file) return;
    setProblem('');
    try {
      const bitmap = await createImageBitmap(file);
      const codes = await codesIn(bitmap, bitmap.width, bitmap.height);
      if (codes.length === 0) setProblem('No code is seen in this picture. Go nearer, or hold it straighter');
      for (const code of codes) latest.current(code);
    } catch {
      setProblem('This picture cannot be read');
    }
  };
  // A page that was not reached by a secure address may not see; a picture can always be taken.
  const canSee = typeof navigator !== 'undefined' && navigator.mediaDevices !== undefined;
  return (
    <div>
      <div className="flex gap-2">
        {canSee ? (
          <button
            type="button"
            aria-pressed={isOn}
            className="btn btn-sm"
            onClick={() => {
              setProblem('');
              setIsOn((now) => !now);
            }}
          >
            <CameraSign size={15} aria-hidden="true" /> {isOn ? 'Camera off' : 'Camera'}
          </button>
        ) : null}
        <label className="btn btn-sm cursor-pointer focus-within:outline-2">
          A picture of a code
          <input
            type="file"
            accept="image/*"
            capture="environment"
            className="sr-only"
            onChange={(event) => {
              const [file] = event.target.files ?? [];
              event.target.value = '';
              void readPicture(file);
            }}
          />
        </label>
      </div>
      {isOn ? (
        // Nothing is to be heard: it shows what lies before the camera.
        <video
          ref={video}
          muted
          playsInline
          className="mt-2 w-full rounded bg-black"
          aria-label="What the camera sees"
        />
      ) : null}
      {problem ? (
        <p role="alert" className="mt-1 text-[12px] text-warning">
          {problem}
        </p>
      ) : null}
    </div>
  );
}
