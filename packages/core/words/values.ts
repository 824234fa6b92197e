/** The ruling of one value in words: headline, the working in the student's numbers, and how it is known. */
export interface ValueWords {
  readonly name: string;
  readonly headline: string;
  readonly body: string;
  readonly proof: string;
}
