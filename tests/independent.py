"""A second reckoning of a whole build file, from docs/methods.md alone, sharing no code with it.

It works on the file's JSON with plain loops and dense matrices: an explicit joint covariance, one
rank-one update for each reading, wings by thin strips, doubts of the CG by finite differences.
"""

import json
from collections import defaultdict
from math import erf, sqrt
from typing import Any

import numpy as np

FRACTION = {
    "guess": 0.25,
    "listing": 0.05,
    "calculated": 0.03,
    "joint": 0.4,
    "covering": 0.1,
    "allowance": 1.0,
}


COMMON = {"guess": 0.15, "listing": 0.03}


def phi(t: float) -> float:
    return 0.5 * (1 + erf(t / sqrt(2)))


class Reckoning:
    """Everything the tests compare, for one build file."""

    def __init__(self, text: str, learning: bool = True) -> None:
        """``learning``: weighed parts teach how far off their pedigrees are."""
        self.learning = learning
        self.drive: dict[str | None, dict[str, Any]] = {}
        """What each loadout's drive was found to give; that is reckoned elsewhere."""
        self.build = json.loads(text)["build"]
        self.lots = self.build["lots"]
        self.parts = self.build["parts"]
        self.scales = self.build["scales"]
        self._prior()
        self._condition()
        self.wing = self._wing()
        self.x, self.x_sd, self.placed = self._stations()

    def estimates(self) -> list[float]:
        """Prior means; an allowance without a figure is 4 % of what is always aboard."""
        constants = {lot["id"]: self.heard(lot)[0] for lot in self.lots}
        told = []
        for part in self.parts:
            cut = sum(use["amount"] * constants[use["lot"]] for use in part["uses"])
            told.append((part["stated_g"] or 0.0) + cut)
        always = [
            mean
            for part, mean in zip(self.parts, told, strict=True)
            if part["pedigree"] != "allowance" and not part["option"] and not part["retired"]
        ]
        for i, part in enumerate(self.parts):
            if part["pedigree"] == "allowance" and part["stated_g"] is None:
                told[i] = 0.04 * sum(always)
        return told

    def heard(self, lot: dict[str, Any]) -> tuple[float, float]:
        """A lot's constant and doubt with what other builds found, as one more reading."""
        if not lot["elsewhere"]:
            return lot["constant"], lot["doubt"]
        there = lot["elsewhere"]
        told = 1 / lot["doubt"] ** 2 + 1 / there["doubt"] ** 2
        mean = lot["constant"] / lot["doubt"] ** 2 + there["value"] / there["doubt"] ** 2
        return mean / told, told**-0.5

    def owns(self, estimates: list[float]) -> list[tuple[float, float, bool]]:
        """Each part's own doubt, how much of its pedigree's common factor it has, and whether that
        doubt is the usual one."""
        told = []
        for part, mean in zip(self.parts, estimates, strict=True):
            usual = part["doubt_g"] is None and not part["elsewhere"]
            common = (part["stated_g"] or 0.0) if usual and part["pedigree"] in COMMON else 0.0
            own = part["doubt_g"]
            if own is None:
                own = FRACTION[part["pedigree"]] * abs(mean)
                if part["pedigree"] == "listing":
                    own = max(own, 0.2)
                own = sqrt(own**2 - (COMMON.get(part["pedigree"], 0.0) * common) ** 2)
            told.append((own, common, usual))
        return told

    def _widths(self) -> dict[str, float]:
        """How much wider each pedigree's own doubts are, from the parts that were weighed, every
        reading taken at its word: the independent deviations stand in the state by themselves."""
        K, N = len(self.lots), len(self.parts)
        lots = {lot["id"]: k for k, lot in enumerate(self.lots)}
        part_at = {part["id"]: i for i, part in enumerate(self.parts)}
        scale_at = {scale["id"]: s for s, scale in enumerate(self.scales)}
        pedigrees = list(COMMON)
        owns = self.owns(self.estimates())
        # lots, factors, own deviations, scale errors: all independent of one another.
        sd = np.array(
            [
                *(self.heard(lot)[1] for lot in self.lots),
                *COMMON.values(),
                *(
                    own
                    if not part["elsewhere"]
                    else (own**-2 + part["elsewhere"]["doubt"] ** -2) ** -0.5
                    for (own, _, _), part in zip(owns, self.parts, strict=True)
                ),
                *(scale["calibration_doubt"] for scale in self.scales),
            ]
        )
        F = K + len(COMMON)
        rows, gaps, noise = [], [], []
        for weighing in self.build["weighings"]:
            if weighing["set_aside"] is not None:
                continue
            row, load = np.zeros(len(sd)), weighing["pan"]["known_g"]
            for on in weighing["pan"]["loads"]:
                i = part_at[on["part"]]
                part, count = self.parts[i], on["count"]
                row[F + i] += count
                for use in part["uses"]:
                    row[lots[use["lot"]]] += count * use["amount"]
                if owns[i][1]:
                    row[K + pedigrees.index(part["pedigree"])] += count * owns[i][1]
                load += count * self.prior_mass(i)
            for on in weighing["pan"]["samples"]:
                row[lots[on["lot"]]] += on["amount"]
                load += on["amount"] * self.heard(self.lots[lots[on["lot"]]])[0]
            row[F + N + scale_at[weighing["scale"]]] = weighing["reading_g"]
            scale = self.scales[scale_at[weighing["scale"]]]
            repeat = scale["repeatability_g"]
            repeat = scale["step_g"] / 2 if repeat is None else repeat
            rows.append(row)
            gaps.append(weighing["reading_g"] - load)
            noise.append(scale["step_g"] ** 2 / 12 + repeat**2)
        widths = {}
        if not rows:
            return widths
        h = np.array(rows) * sd
        inner = np.linalg.inv(h @ h.T + np.diag(noise))
        far = {}
        for i, (own, _, usual) in enumerate(owns):
            told = h[:, F + i] @ inner @ h[:, F + i]
            if usual and own > 0 and told > 0.02 and self.parts[i]["pedigree"] != "allowance":
                t = h[:, F + i] @ inner @ np.array(gaps) / sqrt(told)
                far.setdefault(self.parts[i]["pedigree"], []).append((t**2, told))
        found = {}
        for pedigree, squares in far.items():
            square, many = 1.0, sum(w for _, w in squares)
            for _ in range(200):
                clipped = sum(w * min(t, 6.25 * square) for t, w in squares)
                square = (8 + clipped) / (8 + many)
            found[pedigree] = (clipped, many)
        for pedigree in {part["pedigree"] for part in self.parts} - {"allowance"}:
            # As wide as the other pedigrees came out until it is weighed itself, never narrower
            # than the table for that; and a Student's t of 8 + n degrees of freedom.
            clipped, many = found.get(pedigree, (0.0, 0.0))
            others = [each for other, each in found.items() if other != pedigree]
            wide = (4 + sum(c for c, _ in others)) / (4 + sum(n for _, n in others))
            square = (8 * max(wide, 1.0) + clipped) / (8 + many)
            widths[pedigree] = sqrt(square * ((8 + many) / (6 + many) if many else 1.0))
        return widths

    def prior_mass(self, i: int) -> float:
        """A part's mass before any weighing, with what other builds weighed it at."""
        part, mean = self.parts[i], self.estimates()[i]
        if not part["elsewhere"]:
            return mean
        own, found = self.owns(self.estimates())[i][0], part["elsewhere"]
        told = 1 / own**2 + 1 / found["doubt"] ** 2
        return (mean / own**2 + found["value"] / found["doubt"] ** 2) / told

    def _prior(self) -> None:
        K, N, S = len(self.lots), len(self.parts), len(self.scales)
        n = K + N + S
        widths = self._widths() if self.learning else {}
        at = {lot["id"]: k for k, lot in enumerate(self.lots)}
        self.mean, self.cov = np.zeros(n), np.zeros((n, n))
        shares = np.zeros((N, K))
        for k, lot in enumerate(self.lots):
            self.mean[k], sd = self.heard(lot)
            self.cov[k, k] = sd**2
        estimates = self.estimates()
        owns = self.owns(estimates)
        for i, part in enumerate(self.parts):
            for use in part["uses"]:
                shares[i, at[use["lot"]]] += use["amount"]
            self.mean[K + i] = estimates[i]
        for i, part in enumerate(self.parts):
            own, common, usual = owns[i]
            if usual:
                own *= widths.get(part["pedigree"], 1.0)
            for k in range(K):
                self.cov[K + i, k] = self.cov[k, K + i] = shares[i, k] * self.cov[k, k]
            for j in range(N):
                together = sum(shares[i, k] * shares[j, k] * self.cov[k, k] for k in range(K))
                if part["pedigree"] == self.parts[j]["pedigree"] and common:
                    together += common * owns[j][1] * COMMON[part["pedigree"]] ** 2
                self.cov[K + i, K + j] = together
            if part["elsewhere"]:
                found = part["elsewhere"]
                told = 1 / own**2 + 1 / found["doubt"] ** 2
                self.mean[K + i] = (
                    self.mean[K + i] / own**2 + found["value"] / found["doubt"] ** 2
                ) / told
                own = told**-0.5
            self.cov[K + i, K + i] += own**2
        for s, scale in enumerate(self.scales):
            self.cov[K + N + s, K + N + s] = scale["calibration_doubt"] ** 2

    def _condition(self) -> None:
        K, N = len(self.lots), len(self.parts)
        part_at = {part["id"]: K + i for i, part in enumerate(self.parts)}
        lot_at = {lot["id"]: k for k, lot in enumerate(self.lots)}
        scale_at = {scale["id"]: K + N + s for s, scale in enumerate(self.scales)}
        mean0, cov0, around = self.mean, self.cov, self.mean.copy()
        self.been = set()
        for _ in range(12):
            mean, cov = mean0.copy(), cov0.copy()
            for weighing in self.build["weighings"]:
                if weighing["set_aside"] is not None:
                    continue
                h = np.zeros(len(mean))
                for load in weighing["pan"]["loads"]:
                    h[part_at[load["part"]]] += load["count"]
                    self.been.add(load["part"])
                for sample in weighing["pan"]["samples"]:
                    h[lot_at[sample["lot"]]] += sample["amount"]
                s = scale_at[weighing["scale"]]
                scale = self.scales[s - K - N]
                load = h @ around + weighing["pan"]["known_g"]
                slope = h * (1 + around[s])
                slope[s] = load
                predicted = (1 + around[s]) * load + slope @ (mean - around)
                repeat = scale["repeatability_g"]
                repeat = scale["step_g"] / 2 if repeat is None else repeat
                noise = scale["step_g"] ** 2 / 12 + repeat**2
                gain = cov @ slope / (slope @ cov @ slope + noise)
                mean = mean + gain * (weighing["reading_g"] - predicted)
                cov = cov - np.outer(gain, slope @ cov)
            around = mean
        self.mass, self.mass_cov = mean[K : K + N], cov[K : K + N, K : K + N]
        self.lot_constants = mean[:K]
        self.after, self.after_cov = mean, cov

    def _wing(self) -> dict[str, float] | None:
        area = square = moment = span = 0.0
        wings = [each for each in self.build["surfaces"] if each["role"] == "wing"]
        for surface in wings:
            rows = surface["sections"]
            y = np.linspace(rows[0]["y_mm"], rows[-1]["y_mm"], 40_001)
            y = (y[1:] + y[:-1]) / 2
            step = (rows[-1]["y_mm"] - rows[0]["y_mm"]) / len(y)
            out = [row["y_mm"] for row in rows]
            chord = np.interp(y, out, [row["chord_mm"] for row in rows])
            edge = np.interp(y, out, [row["x_le_mm"] for row in rows])
            area += 2 * chord.sum() * step
            square += 2 * (chord**2).sum() * step
            moment += 2 * (edge * chord).sum() * step
            span = max(span, 2 * out[-1])
        if area == 0:
            return None
        return {
            "area": area / 1e4,
            "mac": square / area,
            "mac_le": moment / area,
            "aspect": span**2 / area,
            "edge": wings[0]["sections"][0]["x_le_mm"],
        }

    def _stations(self) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
        sheets = {lot["id"] for lot in self.lots if lot["unit"] == "dm2"}
        edge = self.wing["edge"] if self.wing else 0.0
        x, doubt, placed = [], [], []
        for part in self.parts:
            at = part["station"]
            area = sum(abs(use["amount"]) for use in part["uses"] if use["lot"] in sheets)
            usual = 4.0 if area >= 2.0 else 2.0
            placed.append(at is not None)
            if at is None:
                x.append(0.0)
                doubt.append(usual)
                continue
            x.append(at["x_mm"] + (edge if at["reference"] == "leading_edge" else 0.0))
            doubt.append(usual if at["doubt_mm"] is None else at["doubt_mm"])
        return np.array(x), np.array(doubt), np.array(placed)

    def aboard(self, loadout: dict[str, Any] | None) -> np.ndarray:
        carried = set(loadout["carries"]) if loadout else {part["id"] for part in self.parts}
        return np.array(
            [
                float(not part["retired"] and (not part["option"] or part["id"] in carried))
                for part in self.parts
            ]
        )

    def cg(self, aboard: np.ndarray) -> tuple[float, float]:
        """The CG along x and its doubt, the slopes by finite differences."""

        def centre(mass: np.ndarray, x: np.ndarray) -> float:
            here = mass * aboard * self.placed
            return float(here @ x / here.sum())

        at = centre(self.mass, self.x)
        slope = np.zeros(len(self.mass))
        variance = 0.0
        for i in range(len(self.mass)):
            nudge = np.zeros(len(self.mass))
            nudge[i] = 1e-3
            up, down = self.mass + nudge, self.mass - nudge
            slope[i] = (centre(up, self.x) - centre(down, self.x)) / 2e-3
            shift = (centre(self.mass, self.x + nudge) - centre(self.mass, self.x - nudge)) / 2e-3
            variance += (shift * self.x_sd[i]) ** 2
        variance += slope @ self.mass_cov @ slope
        here = self.mass * aboard * self.placed
        rest = here @ (self.x - at) ** 2 / here.sum()
        anywhere = np.mean((self._along() - at) ** 2)
        for i, part in enumerate(self.parts):
            if self.placed[i]:
                continue
            share = self.mass[i] * aboard[i] / (self.mass @ aboard)
            lump = part["pedigree"] in ("guess", "listing", "calculated") and not part.get("host")
            variance += share**2 * (max(rest, anywhere) if lump else rest)
        return at, sqrt(variance)

    def _along(self) -> np.ndarray:
        """Many places from the nose, or what sits ahead of it, to the last drawn or placed."""
        sits = self.x[self.placed]
        drawn = [
            section["x_le_mm"] + section["chord_mm"]
            for surface in self.build["surfaces"]
            for section in surface["sections"]
        ]
        return np.linspace(min([0.0, *sits]), max([0.0, *drawn, *sits]), 20_001)

    def answers(self, loadout: dict[str, Any] | None) -> dict[str, dict[str, Any]]:
        """The four answers with value, doubt, chance and word."""
        aboard = self.aboard(loadout)
        weight = float(self.mass @ aboard)
        doubt = sqrt(aboard @ self.mass_cov @ aboard)
        told: dict[str, dict[str, Any]] = defaultdict(dict)
        told["auw"].update(value=weight, sd=doubt)
        if self.wing:
            told["wing_loading"].update(
                value=weight / self.wing["area"], sd=doubt / self.wing["area"]
            )
        thrust = self.thrust(loadout)
        if thrust:
            own = thrust["doubt_gf"]
            own = 0.1 * thrust["thrust_gf"] if own is None else own
            ratio = thrust["thrust_gf"] / weight
            told["thrust_to_weight"].update(
                value=ratio, sd=sqrt((own / weight) ** 2 + (ratio * doubt / weight) ** 2)
            )
        x, x_sd = self.cg(aboard)
        unit = next(
            (t["balance_unit"] for t in self.build["targets"] if t["kind"] == "balance"),
            "percent_mac" if self.wing else "mm_from_nose",
        )
        origin, size = 0.0, 1.0
        if unit == "mm_from_leading_edge":
            origin = self.wing["edge"]
        if unit == "percent_mac":
            origin, size = self.wing["mac_le"], self.wing["mac"] / 100
        told["balance"].update(value=(x - origin) / size, sd=x_sd / size)
        for target in self.build["targets"]:
            answer = told[target["kind"]]
            if "value" in answer:
                self._judge(answer, target, aboard, weight, doubt, self.thrust(loadout))
        return told

    def thrust(self, loadout: dict[str, Any] | None) -> dict[str, Any] | None:
        """A loadout's thrust: what its drive was found to give, else the stated one."""
        found = self.drive.get(loadout["id"] if loadout else None)
        return found or self.build["thrust"]

    def _judge(
        self,
        answer: dict,
        target: dict,
        aboard: np.ndarray,
        weight: float,
        doubt: float,
        thrust: dict | None,
    ) -> None:
        low, high = target["low"], target["high"]

        def below(limit: float) -> float:
            if target["kind"] != "thrust_to_weight":
                return phi((limit - answer["value"]) / answer["sd"])
            own = thrust["doubt_gf"]
            own = 0.1 * thrust["thrust_gf"] if own is None else own
            gap = limit * weight - thrust["thrust_gf"]
            return phi(gap / sqrt(own**2 + (limit * doubt) ** 2))

        p = (1.0 if high is None else below(high)) - (0.0 if low is None else below(low))
        full = all(
            part["id"] in self.been for part, on in zip(self.parts, aboard, strict=True) if on
        )
        word = "too close to call"
        if p >= 0.8:
            word = "on course"
        if p <= 0.2:
            word = "off course"
        if full and p >= 0.975:
            word = "met"
        if full and p <= 0.025:
            word = "missed"
        edges = [high - answer["value"]] if high is not None else []
        edges += [answer["value"] - low] if low is not None else []
        answer.update(probability=p, word=word, margin=min(edges))

    def leave_one_out(self) -> dict[str, float]:
        """How far each reading is from what a whole reckoning without it predicts, in sigma."""
        told = {}
        for weighing in self.build["weighings"]:
            if weighing["set_aside"] is not None:
                continue
            less = {
                **self.build,
                "weighings": [w for w in self.build["weighings"] if w["id"] != weighing["id"]],
            }
            rest = Reckoning(json.dumps({"build": less}), learning=False)
            told[weighing["id"]] = rest.off(weighing)
        return told

    def off(self, weighing: dict[str, Any]) -> float:
        """How far a reading is from what is expected, in sigma."""
        K, N = len(self.lots), len(self.parts)
        s = next(k for k, scale in enumerate(self.scales) if scale["id"] == weighing["scale"])
        h = np.zeros(len(self.after))
        for load in weighing["pan"]["loads"]:
            i = next(i for i, part in enumerate(self.parts) if part["id"] == load["part"])
            h[K + i] += load["count"]
        for sample in weighing["pan"]["samples"]:
            k = next(k for k, lot in enumerate(self.lots) if lot["id"] == sample["lot"])
            h[k] += sample["amount"]
        error = self.after[K + N + s]
        load = h @ self.after + weighing["pan"]["known_g"]
        slope = h * (1 + error)
        slope[K + N + s] = load
        scale = self.scales[s]
        repeat = scale["repeatability_g"]
        repeat = scale["step_g"] / 2 if repeat is None else repeat
        variance = slope @ self.after_cov @ slope + scale["step_g"] ** 2 / 12 + repeat**2
        return float((weighing["reading_g"] - (1 + error) * load) / sqrt(variance))
