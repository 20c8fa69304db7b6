"""The area of a part by the weight of its paper template."""

from oaken_scale.core.geometry.shape import template_area
from oaken_scale.core.ledger.scale import reading_doubt
from oaken_scale.core.model.amount import grams
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.weighing import Scale


def weighed_template(
    reading_g: float, step_g: float, paper_g_m2: float, paper_sd_g_m2: float
) -> tuple[float, float]:
    """Area of a template by what a scale of a display step shows of it [g], and one sigma [dm2].

    Raises BuildFaultError (``reading_g``) under one step.

    >>> area, doubt = weighed_template(8.0, 0.1, 80.0, 2.0)
    >>> area, round(doubt, 3)
    (10.0, 0.26)
    """
    if reading_g < step_g:
        words = "{} is less than one step of the scale; weigh several together"
        raise BuildFaultError([Fault("reading_g", words, (grams(reading_g),))])
    sd = reading_doubt(Scale("template", "Template", step_g))
    return template_area(reading_g, sd, paper_g_m2, paper_sd_g_m2)
