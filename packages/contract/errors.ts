/** Every error a reply can carry. A code without a status or a text does not compile. */
export const errorStatus = {
  badRequest: 400,
  notSignedIn: 401,
  wrongCredentials: 401,
  joinRefused: 403,
  ownCodeWanted: 409,
  ownCodeElsewhere: 409,
  passwordWrong: 403,
  passwordWeak: 422,
  nameOdd: 422,
  loginTaken: 409,
  classArchived: 409,
  lastInstructor: 409,
  accountElsewhere: 409,
  inClassAlready: 409,
  schoolOfDemo: 422,
  firstIsThere: 409,
  firstCodeWrong: 403,
  rosterUnreadable: 422,
  forbidden: 403,
  readOnly: 403,
  crossSite: 403,
  notFound: 404,
  laneMoved: 409,
  notHandedIn: 409,
  notProvable: 409,
  notAskedToSign: 409,
  attemptsUsedUp: 409,
  notOpenYet: 409,
  windowOver: 409,
  windowTurned: 422,
  planMoved: 409,
  classPaused: 409,
  notInClass: 403,
  lookAsked: 409,
  noLookAsked: 409,
  tooManyMarks: 422,
  noSuchMoment: 422,
  markingMoved: 409,
  floorInUse: 409,
  floorHandedIn: 409,
  floorNotSigned: 409,
  floorNotChecked: 409,
  floorChecksDisagree: 409,
  floorCheckTooCoarse: 409,
  floorReasonWanted: 422,
  floorChangedSince: 409,
  tooLarge: 413,
  tooManyTries: 429,
  tooFast: 429,
  givenUp: 409,
  internal: 500,
  unavailable: 503,
} as const;
export type ErrorCode = keyof typeof errorStatus;

export const errorWords: Record<ErrorCode, string> = {
  givenUp: "That run was given up, by hand or for a newer one of yours. Run it again if you want its answer.",
  badRequest: "That request cannot be read, so nothing was changed. Reload the page and try again.",
  notSignedIn: "You are not signed in, or your session has ended. Sign in again; your lane is as you left it.",
  wrongCredentials: "Name and password do not fit together. Check both and try again.",
  joinRefused: "That code is not in use. Ask your instructor for the one that counts now.",
  ownCodeWanted:
    "That sign-in name stands on the roster, and its place has a code of its own. Ask your instructor for it.",
  ownCodeElsewhere: "That code belongs to another sign-in name. Type the one that your instructor gave you with it.",
  passwordWrong: "That is not the password that you have now. Check it and try again; nothing was changed.",
  passwordWeak:
    "That password is too easy to guess. Use at least ten characters, not your own name and not one that many use.",
  nameOdd: "That name has signs that cannot be seen, or letters of two alphabets in one word. Type it anew.",
  loginTaken:
    "That sign-in name belongs to somebody already. Sign in with it, choose another one, or ask your instructor to reset it.",
  classArchived: "This class is archived: what was done in it can be read, and nothing new is begun.",
  accountElsewhere:
    "That account is also used in a class that you do not teach, so nothing was changed. Keep it, and let the other one go into it.",
  lastInstructor: "A class keeps one instructor at least, so nobody was removed. Invite another one first.",
  inClassAlready: "You are in that class already. Open it from the list of your classes.",
  schoolOfDemo: "That is the school of the demo, which is made anew now and then. Give yours a name of its own.",
  firstIsThere: "This school has an instructor already. Sign in, or ask that person for an account.",
  firstCodeWrong: "That is not the code that the terminal shows. Read it there once more; nothing was made.",
  rosterUnreadable:
    "The list has lines that cannot be read, so nobody was added. Preview it, mend the lines named there, and add it again.",
  forbidden: "This is not yours to see. Go back to your own lanes.",
  readOnly: "You can watch this lane, but only its student can work in it.",
  crossSite: "This request came from another site and was not run. Open Probe Lane by its own address.",
  notFound: "There is nothing at this address. Go back to your lanes and choose one.",
  laneMoved: "This lane has gone on in another tab or window. Reload to see where it stands; nothing of it is lost.",
  notProvable:
    "No program can be run against this setup yet: only a plain blank on a mill that lies along the axes, and a turret lathe.",
  notAskedToSign:
    "Nothing waits for a signature in this lane: something was changed since it was asked for, or it is signed.",
  notHandedIn: "This lane is not handed in yet, so there is no ruling. Go back to the bench.",
  attemptsUsedUp: "All attempts of this exercise are used. Ask your instructor for another one.",
  notOpenYet: "This exercise is not open yet. Its day stands beside it.",
  windowOver: "The time of this exercise is over, and it is not begun late. Ask your instructor.",
  windowTurned: "An exercise cannot be due before it opens, so nothing was changed. Look at the two days.",
  notInClass: "You are no longer in the class of this lane: it can be read, and not gone on with.",
  lookAsked: "You have asked for another look at this lane already. Wait for the answer; it stands here.",
  noLookAsked: "Nobody waits for an answer about this lane: it was answered, or nothing was asked.",
  classPaused: "The class is paused: the machine holds, and nothing is lost. It goes on by itself.",
  planMoved: "Somebody else has just changed this plan, so yours was not stored. Look at it again.",
  tooManyMarks: "A strand cannot get more marks than it is out of, so nothing was changed. Give fewer.",
  noSuchMoment: "This lane has no such entry to pin a note to. Choose a moment on the scrubber.",
  markingMoved:
    "Somebody else has just changed the marking of this exercise, so yours was not stored. Look at theirs and try again.",
  floorInUse:
    "Somebody has begun this exercise, so it is neither changed nor deleted. Hide it, or change a copy of it.",
  floorHandedIn: "This floor lane is handed in: nothing more can be written in it.",
  floorNotSigned: "Your instructor has not signed yet. The lane can be handed in after the sign-off.",
  floorNotChecked: "Every register needs a value and a check before you sign. Enter the missing ones first.",
  floorChecksDisagree:
    "Checks of one register contradict each other, so nobody knows what it should hold. Find out which one is wrong, strike it, then sign.",
  floorCheckTooCoarse:
    "A check is less sure than the tolerance of its register, so it decides nothing. Make a better one, then sign.",
  floorReasonWanted: "A value is outside its tolerance. Say why you sign it all the same, or send it back.",
  floorChangedSince:
    "Something was entered in this lane since you looked, so it was not signed. Look at it as it stands now, then sign.",
  tooLarge: "That is more than one request may carry. Nothing was changed.",
  tooManyTries:
    "Too many sign-ins have failed here. Wait a minute and try again; a right password is never locked for long.",
  tooFast:
    "That was more at once than one account can have done for it. Nothing was changed; wait a moment and try again.",
  internal: "Something went wrong on the server. Nothing was changed; tell your instructor the number below.",
  unavailable:
    "The record cannot be reached at the moment, so nothing was changed. Wait a little; the page tries again by itself. If it stays so, whoever runs the server stops it and types ./start again.",
};

/** The one shape of every error reply. A 5xx carries a number to find it in the server's log, and nothing else. */
export interface ErrorBody {
  error: { code: ErrorCode; message: string; requestId?: string };
}
