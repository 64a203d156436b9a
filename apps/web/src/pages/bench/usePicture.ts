import { useState } from 'react';
import { decodePicture } from '../../data/pictures.ts';

/** A picture from a file, as a calculator is given it: it stays in this browser until it is sent to be printed. */
export interface BroughtPicture {
  /** Of the file, without its ending. */
  name: string;
  bitmap: ImageBitmap;
}

/** @returns the picture that was brought last, why the last file was none, and what takes a file */
export function usePicture() {
  const [picture, setPicture] = useState<BroughtPicture | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const bring = async (file: File | undefined) => {
    if (!file) return;
    const bitmap = await decodePicture(file);
    setFault(bitmap ? null : `“${file.name}” is no picture that this browser can read.`);
    if (bitmap) setPicture({ name: file.name.replace(/\.[^.]*$/, ''), bitmap });
  };
  return { picture, fault, bring };
}
