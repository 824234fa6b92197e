import { Button } from "../../../../../ui";
import { turretLabel } from "../view";
import type { LatheDialogProps } from "../view";

/**
 * Which tools do for the part: the profile's steepest fall and its groove beside what each tool is. Nothing is worked
 * out here.
 */
export function Fit({ seen, send }: LatheDialogProps) {
  const { lathe, sheet } = seen;
  const { profile, tools = [], targets } = sheet.lathe ?? {};
  if (!lathe || !profile) return null;
  return (
    <div className="flex flex-col gap-2">
      <p className="text-ink2">
        The profile falls toward the chuck by <b className="figures text-ink">{profile.steepestFallDeg}°</b> at its
        steepest, its groove is <b className="figures text-ink">{profile.grooveMm} mm</b> deep. A trailing edge wants
        two or three degrees to spare.
      </p>
      <table className="w-full">
        <thead>
          <tr className="text-left text-xs text-ink2">
            <th className="font-normal">Tool</th>
            <th className="font-normal">Lead angle</th>
            <th className="font-normal">Blade reaches</th>
            <th className="font-normal">For this part it</th>
          </tr>
        </thead>
        <tbody>
          {tools
            .filter(({ number }) => targets?.fit?.includes(number))
            .map((tool) => {
              const said = lathe.fits[tool.number];
              return (
                <tr key={tool.number} className="border-t border-rule-soft">
                  <th scope="row" className="py-1.5 text-left font-normal">
                    {turretLabel(tool)}
                  </th>
                  <td className="figures">{tool.leadDeg === undefined ? "–" : `${tool.leadDeg}°`}</td>
                  <td className="figures">{tool.deepestMm === undefined ? "–" : `${tool.deepestMm} mm`}</td>
                  <td>
                    <span role="group" aria-label={`Tool ${tool.number}`} className="flex gap-1.5">
                      {[true, false].map((fits) => (
                        <Button
                          key={String(fits)}
                          className="text-xs"
                          look={said === fits ? "act" : "plain"}
                          aria-pressed={said === fits}
                          aria-label={`Tool ${tool.number} ${fits ? "fits" : "does not fit"}`}
                          onClick={() => send({ type: "stateFit", tool: tool.number, fits })}
                        >
                          {fits ? "fits" : "does not fit"}
                        </Button>
                      ))}
                    </span>
                  </td>
                </tr>
              );
            })}
        </tbody>
      </table>
    </div>
  );
}
