import { createWriteStream, existsSync, renameSync, statSync } from 'node:fs';
import { Writable } from 'node:stream';

const mostBytes = 10 * 1024 * 1024;

/** A log that never grows beyond a size: when it is full it becomes the one of before, whose place it takes. */
export class LogFile extends Writable {
  #path;
  #most;
  #file;
  #size;

  constructor(path, most = mostBytes) {
    super();
    this.#path = path;
    this.#most = most;
    this.#open();
  }

  #open() {
    this.#size = existsSync(this.#path) ? statSync(this.#path).size : 0;
    this.#file = createWriteStream(this.#path, { flags: 'a' });
  }

  _write(chunk, _encoding, done) {
    if (this.#size + chunk.length > this.#most && this.#size > 0) {
      this.#file.end(() => {
        renameSync(this.#path, this.#path.replace(/(\.log)?$/, '.before$1'));
        this.#open();
        this.#put(chunk, done);
      });
      return;
    }
    this.#put(chunk, done);
  }

  #put(chunk, done) {
    this.#size += chunk.length;
    this.#file.write(chunk, done);
  }

  _final(done) {
    this.#file.end(done);
  }
}
