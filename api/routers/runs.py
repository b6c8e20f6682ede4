"""Run and Trials: steps, weights and moments as they happen; verdicts, comparisons. Why and what was learned are jobs."""

from django.http import HttpRequest, HttpResponse
from ninja import File, Query, Router
from ninja.files import UploadedFile

from api.bench_pass import forget_pass
from api.document_schemas import FormulaDocument
from api.errors import ProblemOut
from api.heavy import heavy
from api.kitchen_schemas import DevicesIn, KitchenOut
from api.person import kitchen_member
from api.run_schemas import (
    DeviceIn,
    DeviceOut,
    EntriesIn,
    EntriesOut,
    EntryOut,
    FeelIn,
    ImportedRunsOut,
    LearningChange,
    LineOut,
    LineQuery,
    LiveIn,
    PhotoOut,
    PourIn,
    ProposalIn,
    ProposalOnDraft,
    ReferenceQuery,
    RunChange,
    RunFileOut,
    RunOut,
    RunQuery,
    RunRow,
    RunsFileIn,
    RunsPage,
    RunsQuery,
    RunStartIn,
    VerdictDocument,
)
from kitchen.models import RunPhoto
from kitchen.services import devices, photos, run_advice, runs, trial_files, trials
from kitchen.services.devices import DeviceReadings
from substrata.execution import FeelAdvice, LiveForecast, PourAdvice
from substrata.inference import RunsCompared, run_figure_kinds

router = Router(tags=["runs"])
Problems = {401: ProblemOut, 403: ProblemOut, 404: ProblemOut, 413: ProblemOut, 422: ProblemOut}
ALL = "/kitchens/{int:kitchen_id}/runs"
RUN = f"{ALL}/{{int:run_id}}"


@router.get(ALL, response={200: RunsPage, **Problems}, operation_id="runs")
def list_runs(request: HttpRequest, kitchen_id: int, query: Query[RunQuery]) -> RunsPage:
    """List the kitchen's runs, the newest first."""
    rows = runs.runs_of(kitchen_member(request, kitchen_id), formula_id=query.formula_id, open_only=query.open_only)
    page = rows[query.offset : query.offset + runs.PAGE]
    return RunsPage(runs=[RunRow.from_service(run) for run in page], total=rows.count())


@router.post(ALL, response={201: RunOut, **Problems}, operation_id="start_run")
def start_run(request: HttpRequest, kitchen_id: int, payload: RunStartIn) -> tuple[int, RunOut]:
    """Begin a run of a formula."""
    member = kitchen_member(request, kitchen_id)
    run = runs.start_run(
        member,
        payload.formula_id,
        payload.key,
        batches=payload.batches,
        started_at=payload.started_at,
    )
    return 201, RunOut.from_service(runs.open_run(member, run.pk))


@router.get(RUN, response={200: RunOut, **Problems}, operation_id="open_run")
def open_run(request: HttpRequest, kitchen_id: int, run_id: int, since: int = 0) -> RunOut:
    """Open a run with its steps and the entries after a known one."""
    return RunOut.from_service(runs.open_run(kitchen_member(request, kitchen_id), run_id, since))


@router.post(f"{RUN}/entries", response={200: EntriesOut, **Problems}, operation_id="write_entries")
def write_entries(request: HttpRequest, kitchen_id: int, run_id: int, payload: EntriesIn) -> EntriesOut:
    """Keep what was done; answers with what other devices did meanwhile."""
    member = kitchen_member(request, kitchen_id)
    new = runs.write_entries(member, run_id, [entry.model_dump() for entry in payload.entries])
    opened = runs.open_run(member, run_id, payload.since)
    return EntriesOut(new=new, entries=[EntryOut.from_service(entry) for entry in opened.entries])


@router.post(f"{RUN}/proposal", response={200: ProposalOnDraft, **Problems}, operation_id="proposal_on_draft")
def proposal_on_draft(request: HttpRequest, kitchen_id: int, run_id: int, payload: ProposalIn) -> ProposalOnDraft:
    """Return what the draft of a run's formula becomes with a proposal; nothing is kept."""
    merged = trials.proposal_on_draft(kitchen_member(request, kitchen_id), run_id, payload.document.model_dump())
    return ProposalOnDraft(document=FormulaDocument.model_validate(merged.document), conflicts=list(merged.conflicts))


@router.post(f"{RUN}/finish", response={200: RunRow, **Problems}, operation_id="finish_run")
def finish_run(request: HttpRequest, kitchen_id: int, run_id: int) -> RunRow:
    """Finish a run: packs lose what was weighed."""
    return RunRow.from_service(runs.finish_run(kitchen_member(request, kitchen_id), run_id))


@router.put(f"{RUN}/verdict", response={200: RunRow, **Problems}, operation_id="give_verdict")
def give_verdict(
    request: HttpRequest, kitchen_id: int, run_id: int, payload: VerdictDocument, response: HttpResponse
) -> RunRow:
    """Say what came of it."""
    forget_pass(response)
    return RunRow.from_service(runs.give_verdict(kitchen_member(request, kitchen_id), run_id, payload.model_dump()))


@router.patch(RUN, response={200: RunRow, **Problems}, operation_id="change_run")
def change_run(request: HttpRequest, kitchen_id: int, run_id: int, payload: RunChange) -> RunRow:
    """Leave it out of all learning, or take it back in."""
    return RunRow.from_service(runs.change_run(kitchen_member(request, kitchen_id), run_id, left_out=payload.left_out))


@router.patch(
    "/kitchens/{int:kitchen_id}/learning", response={200: KitchenOut, **Problems}, operation_id="change_learning"
)
def change_learning(
    request: HttpRequest, kitchen_id: int, payload: LearningChange, response: HttpResponse
) -> KitchenOut:
    """Switch what forecasts take from the runs, forget it all, or take it back in."""
    forget_pass(response)
    member = kitchen_member(request, kitchen_id)
    trials.change_learning(member, off=payload.off, forget=payload.forget)
    return KitchenOut.from_service(member)


@router.delete(RUN, response={204: None, **Problems}, operation_id="delete_run")
def delete_run(request: HttpRequest, kitchen_id: int, run_id: int) -> tuple[int, None]:
    """Take it away for good."""
    runs.delete_run(kitchen_member(request, kitchen_id), run_id)
    return 204, None


@router.post(f"{RUN}/feel", response={200: FeelAdvice, **Problems}, operation_id="feel_run")
def feel_run(request: HttpRequest, kitchen_id: int, run_id: int, payload: FeelIn) -> FeelAdvice:
    """Return what to do with the dough as it is felt."""
    member = kitchen_member(request, kitchen_id)
    return run_advice.feel_run(member, run_id, payload.felt, payload.minute, payload.temperature_c)


@router.post(f"{RUN}/pour", response={200: PourAdvice, **Problems}, operation_id="pour_run")
def pour_run(request: HttpRequest, kitchen_id: int, run_id: int, payload: PourIn) -> PourAdvice:
    """Return what the rest of the formula answers to a weight."""
    return run_advice.pour_run(
        kitchen_member(request, kitchen_id), run_id, payload.line, payload.grams, mixed=payload.mixed
    )


@router.post(f"{RUN}/live", response={200: LiveForecast, **Problems}, operation_id="live_run")
@heavy
def live_run(request: HttpRequest, kitchen_id: int, run_id: int, payload: LiveIn) -> LiveForecast:
    """Return the window of the bake as it stands."""
    return run_advice.live_run(kitchen_member(request, kitchen_id), run_id, payload.minute, payload.readings)


@router.get(
    "/kitchens/{int:kitchen_id}/runs-compared", response={200: RunsCompared, **Problems}, operation_id="compare_runs"
)
@heavy
def compare_runs(request: HttpRequest, kitchen_id: int, query: Query[RunsQuery]) -> RunsCompared:
    """Return runs side by side."""
    ids = [int(part) for part in query.runs.split(",") if part.strip().isdigit()]
    return trials.compare_runs(kitchen_member(request, kitchen_id), ids)


@router.get("/kitchens/{int:kitchen_id}/runs-file", response={200: RunFileOut, **Problems}, operation_id="runs_file")
def runs_file(request: HttpRequest, kitchen_id: int, style: str = "json") -> RunFileOut:
    """All runs as a file."""
    name, text = trial_files.trials_file(kitchen_member(request, kitchen_id), style)
    return RunFileOut(name=name, text=text)


@router.post(
    "/kitchens/{int:kitchen_id}/runs-file", response={201: ImportedRunsOut, **Problems}, operation_id="take_runs"
)
def take_runs(request: HttpRequest, kitchen_id: int, payload: RunsFileIn) -> tuple[int, ImportedRunsOut]:
    """Bring the runs of a file into the kitchen: all of it or nothing."""
    return 201, ImportedRunsOut(runs=trial_files.take_runs(kitchen_member(request, kitchen_id), payload.file))


@router.get("/kitchens/{int:kitchen_id}/devices", response={200: DeviceReadings, **Problems}, operation_id="devices")
def read_devices(request: HttpRequest, kitchen_id: int) -> DeviceReadings:
    """Return what scale and probe show."""
    return devices.readings(kitchen_member(request, kitchen_id))


@router.put("/kitchens/{int:kitchen_id}/devices", response={200: KitchenOut, **Problems}, operation_id="choose_devices")
def choose_devices(request: HttpRequest, kitchen_id: int, payload: DevicesIn) -> KitchenOut:
    """Choose which scale and thermometers the kitchen reads."""
    member = kitchen_member(request, kitchen_id)
    devices.choose_devices(member, payload.devices)
    return KitchenOut.from_service(member)


@router.post("/kitchens/{int:kitchen_id}/devices", response={200: DeviceOut, **Problems}, operation_id="tell_device")
def tell_device(request: HttpRequest, kitchen_id: int, payload: DeviceIn) -> DeviceOut:
    """Tare the scale, or drive the simulated one."""
    return DeviceOut(heard=devices.say(kitchen_member(request, kitchen_id), payload.act, payload.grams))


@router.post(f"{RUN}/probe", response={200: DeviceOut, **Problems}, operation_id="follow_run")
def follow_run(request: HttpRequest, kitchen_id: int, run_id: int) -> DeviceOut:
    """Let the simulated probe follow this run's bake."""
    return DeviceOut(heard=devices.follow(kitchen_member(request, kitchen_id), run_id))


@router.get("/kitchens/{int:kitchen_id}/runs-line", response={200: LineOut, **Problems}, operation_id="runs_line")
def runs_line(request: HttpRequest, kitchen_id: int, query: Query[LineQuery]) -> LineOut:
    """One figure of the runs over time."""
    points = trials.figure_line(kitchen_member(request, kitchen_id), query.figure, query.formula_id)
    return LineOut(points=list(points), kinds=list(run_figure_kinds()))


@router.get(f"{RUN}/photos", response={200: list[PhotoOut], **Problems}, operation_id="photos")
def list_photos(request: HttpRequest, kitchen_id: int, run_id: int) -> list[RunPhoto]:
    """List the photos of a run."""
    return photos.photos_of(kitchen_member(request, kitchen_id), run_id)


@router.post(f"{RUN}/photos", response={201: PhotoOut, **Problems}, operation_id="add_photo")
@heavy
def add_photo(
    request: HttpRequest,
    kitchen_id: int,
    run_id: int,
    query: Query[ReferenceQuery],
    photo: UploadedFile | None = File(None),  # type: ignore[type-arg]  # noqa: B008 - the framework's way
) -> tuple[int, RunPhoto]:
    """Keep a photo; answers with the crust's colour."""
    at = None if query.x is None or query.y is None else (query.x, query.y)
    return 201, photos.add_photo(kitchen_member(request, kitchen_id), run_id, photo, at, query.reference)


@router.get(f"{RUN}/photos/{{int:photo_id}}", response={200: None, **Problems}, operation_id="open_photo")
def open_photo(request: HttpRequest, kitchen_id: int, run_id: int, photo_id: int) -> HttpResponse:
    """Open the picture itself."""
    photo = photos.open_photo(kitchen_member(request, kitchen_id), run_id, photo_id)
    response = HttpResponse(bytes(photo.jpeg), content_type="image/jpeg")
    response["Cache-Control"] = "private, max-age=86400"
    return response


@router.delete(f"{RUN}/photos/{{int:photo_id}}", response={204: None, **Problems}, operation_id="delete_photo")
def delete_photo(request: HttpRequest, kitchen_id: int, run_id: int, photo_id: int) -> tuple[int, None]:
    """Take a photo away."""
    photos.delete_photo(kitchen_member(request, kitchen_id), run_id, photo_id)
    return 204, None
