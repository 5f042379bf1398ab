declare module 'fft.js' {
  /** A fast Fourier transform of a size that is a power of two. Complex numbers lie as pairs. */
  export default class FFT {
    constructor(size: number);
    readonly size: number;
    createComplexArray(): number[];
    /** Fills the lower half of the spectrum of real numbers. */
    realTransform(out: ArrayLike<number>, data: ArrayLike<number>): void;
  }
}
