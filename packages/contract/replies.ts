import type {
  AuditView,
  ClassView,
  DemonstrationView,
  ExercisePatternsView,
  FirstView,
  ReachView,
  FloorClassView,
  FloorLaneView,
  FloorList,
  LaneView,
  LiveView,
  TogetherView,
  MarkingView,
  MarksView,
  Me,
  MyLanes,
  PartView,
  PatternsView,
  PlanView,
  ProveProgress,
  ReviewView,
  RulingView,
  SkillsView,
  StandingsView,
  TrialView,
  WallView,
} from "./wire";

/** What each address that is read answers with, once for server and web. */
export interface Replies {
  "/session": Me;
  "/lanes": MyLanes;
  "/lanes/:id": LaneView;
  "/lanes/:id/ruling": RulingView;
  "/lanes/:id/together": TogetherView;
  "/lanes/:id/live": LiveView;
  "/demonstration": DemonstrationView;
  "/lanes/:id/prove": ProveProgress;
  "/lanes/:id/part": PartView;
  "/lanes/:id/review": ReviewView;
  "/assignments/:id/marking": MarkingView;
  "/assignments/:id/marking/trials/:trial": TrialView;
  "/skills": SkillsView;
  "/students/:id/skills": SkillsView;
  "/standings": StandingsView;
  "/patterns": PatternsView;
  "/patterns/:id": ExercisePatternsView;
  "/marks": MarksView;
  "/class": ClassView;
  "/audit": AuditView;
  "/plan": PlanView;
  "/session/first": FirstView;
  "/reach": ReachView;
  "/wall": WallView;
  "/floor": FloorList;
  "/floor/lanes/:id": FloorLaneView;
  "/floor/exercises/:id/class": FloorClassView;
}
export type ReadPath = keyof Replies;

type NamesIn<P extends string> = P extends `${string}:${infer Name}/${infer Rest}`
  ? Name | NamesIn<Rest>
  : P extends `${string}:${infer Name}`
    ? Name
    : never;
/** What an address leaves open: an id for each name in it. */
export type ParamsOf<P extends string> = Readonly<Record<NamesIn<P>, string>>;
