declare module 'signalsmith-stretch' {
  /** A node that plays buffers that it was given at any speed. */
  interface StretchNode extends AudioWorkletNode {
    /** Takes one array of samples for each channel; gives the end of what it has, in seconds. */
    addBuffers(channels: Float32Array[]): Promise<number>;
    schedule(change: {
      active?: boolean;
      /** Seconds of the buffers and of the context. */
      input?: number;
      output?: number;
      rate?: number;
    }): Promise<unknown>;
  }
  const SignalsmithStretch: {
    (context: BaseAudioContext, options?: AudioWorkletNodeOptions): Promise<StretchNode>;
    moduleUrl?: string;
  };
  export default SignalsmithStretch;
}
declare module 'signalsmith-stretch?url' {
  const url: string;
  export default url;
}
