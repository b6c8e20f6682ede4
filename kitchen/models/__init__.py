"""What is remembered, by station. Every row belongs to a kitchen; versions are only ever added."""

from kitchen.models.accounts import Closing, Invitation, Letter, SignInTries
from kitchen.models.formulas import Draft, Formula, FormulaVersion
from kitchen.models.jobs import Job
from kitchen.models.kitchens import AuditRow, Eater, Kitchen, Membership
from kitchen.models.ovens import LoggedBake, Oven
from kitchen.models.pantry import BakePick, Lot, PackImport, PlannedBake, StockMove
from kitchen.models.plans import Plan
from kitchen.models.runs import Run, RunEntry, RunPhoto
from kitchen.models.shares import Share

__all__ = [
    "AuditRow",
    "BakePick",
    "Closing",
    "Draft",
    "Eater",
    "Formula",
    "FormulaVersion",
    "Invitation",
    "Job",
    "Kitchen",
    "Letter",
    "LoggedBake",
    "Lot",
    "Membership",
    "Oven",
    "PackImport",
    "Plan",
    "PlannedBake",
    "Run",
    "RunEntry",
    "RunPhoto",
    "Share",
    "SignInTries",
    "StockMove",
]
