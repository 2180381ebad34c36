import { cameraJpeg } from './tests/support/pictures';
import { badging } from './tests/bench/photos';
const rss = () => Math.round(process.memoryUsage.rss() / 1e6);
console.log('start', rss());
await cameraJpeg(1);
console.log('after one camera', rss());
for (const f of await badging(60)) console.log(f.id, f.value, f.baseline, f.ratio);
console.log('end', rss());
