import type { SkillId } from "./ids";

/** What one ruling says of a skill, and the marks that it cost. */
export interface SkillShown {
  readonly skill: SkillId;
  readonly isGood: boolean;
  readonly lost: number;
}

/** Earned this share of a strand's marks, and what it stands for counts as shown. */
const ENOUGH = 0.9;

/** Gathers what the parts of one ruling say of each skill: it is good where all of them are. */
export class SkillTally {
  private readonly shown = new Map<SkillId, SkillShown>();
  /** Of a lane that was not passed nothing counts as shown. */
  constructor(private readonly isPassed: boolean) {}

  add(skill: SkillId, isGood: boolean, lost: number): void {
    const before = this.shown.get(skill);
    this.shown.set(skill, {
      skill,
      isGood: this.isPassed && isGood && (before?.isGood ?? true),
      lost: lost + (before?.lost ?? 0),
    });
  }
  addStrand(skill: SkillId, strand: { readonly marks: number; readonly outOf: number } | undefined): void {
    if (strand && strand.outOf > 0) this.add(skill, strand.marks >= ENOUGH * strand.outOf, strand.outOf - strand.marks);
  }
  /** What cost most first. */
  worstFirst(): SkillShown[] {
    return [...this.shown.values()].sort((a, b) => b.lost - a.lost);
  }
}
