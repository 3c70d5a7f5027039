// A picture is chosen from a file, or taken by the camera over the table.
import { Camera, ImageUp } from 'lucide-react';

interface Props {
  /** What the stand-in for a camera shows. */
  shows: string;
  onFile: (file: Blob) => void;
  onTake: () => void;
}

export function ChoosePicture({ shows, onFile, onTake }: Props) {
  return (
    <div className="flex flex-wrap gap-2">
      <label className="btn focus-within:outline-2 focus-within:outline-chalk">
        <ImageUp size={17} /> Choose a picture
        <input
          type="file"
          className="sr-only"
          accept="image/jpeg,image/png,image/webp"
          onChange={(e) => {
            const file = e.target.files?.[0];
            e.target.value = '';
            if (file) onFile(file);
          }}
        />
      </label>
      <button type="button" className="btn" onClick={onTake}>
        <Camera size={17} /> Take a picture
      </button>
      <p className="text-sm text-soft">This camera is simulated. It shows {shows} that were made up.</p>
    </div>
  );
}

/** Where the picture will be. */
export function NoPicture() {
  return (
    <div className="flex aspect-[3/2] items-center justify-center rounded border-2 border-dashed border-[#b3a68d] bg-[#fbf7ec] p-6 text-center text-soft">
      No picture yet. Choose one, or take one with the camera over the table.
    </div>
  );
}

export function Typed({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string;
  onChange: (value: string) => void;
}) {
  return (
    <label className="text-sm text-soft">
      {label}
      <input className="field" value={value} autoComplete="off" onChange={(e) => onChange(e.target.value)} />
    </label>
  );
}
