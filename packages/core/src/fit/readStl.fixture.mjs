// Reads binary STL files with the loader of three.js and prints the corners of their triangles, file by file.
import fs from 'node:fs';
import { STLLoader } from 'three/examples/jsm/loaders/STLLoader.js';

const read = (file) => {
  const { buffer, byteOffset, byteLength } = fs.readFileSync(file);
  const geometry = new STLLoader().parse(buffer.slice(byteOffset, byteOffset + byteLength));
  return [...geometry.getAttribute('position').array];
};
process.stdout.write(JSON.stringify(process.argv.slice(2).map(read)));
