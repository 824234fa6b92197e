import { ownCertificate } from "./certificate";
import { ownNames } from "./reach";

// `node makeCertificate.js FOLDER`: the certificate of this machine's own, made where there is none that still does
const { isNew } = await ownCertificate(process.argv[2] ?? ".", ownNames(), new Date());
if (isNew) process.stderr.write("A certificate of this machine's own was made.\n");
