package org.zestyporter.server.plan;

import java.security.Principal;
import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.zestyporter.core.draft.PlanDraft;
import org.zestyporter.core.formula.Functions;
import org.zestyporter.core.match.MatchClass;
import org.zestyporter.core.preview.MatchSurvey;
import org.zestyporter.core.preview.StageTable;
import org.zestyporter.core.preview.Trials;
import org.zestyporter.core.step.StepKind;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.server.web.Asked;
import org.zestyporter.server.web.Deletion;

@RestController
@RequestMapping("/api")
class PlanController {
  private final PlanService plans;
  private final PlanViewer viewer;
  private final PlanOffers offers;
  private final Proposals proposals;

  PlanController(PlanService plans, PlanViewer viewer, PlanOffers offers, Proposals proposals) {
    this.plans = plans;
    this.viewer = viewer;
    this.offers = offers;
    this.proposals = proposals;
  }

  record Created(long id) {}

  record UseSource(long source) {}

  record RowIndex(long row) {}

  @GetMapping("/plans")
  List<PlanViews.PlanSummary> all() {
    return plans.all();
  }

  @GetMapping("/sources/{source}/proposals")
  List<PlanViews.Proposal> proposals(@PathVariable long source, @RequestParam String connection) {
    return proposals.of(source, connection);
  }

  @PostMapping("/plans")
  @ResponseStatus(HttpStatus.CREATED)
  Created create(@RequestBody PlanViews.NewPlan wanted, Principal principal) {
    return new Created(plans.create(wanted, principal.getName()));
  }

  @GetMapping("/plans/{id}")
  PlanViews.PlanView find(
      @PathVariable long id, @RequestParam(defaultValue = "0") int destination) {
    plans.opened(id);
    return view(id, destination);
  }

  private PlanViews.PlanView view(long id, int destination) {
    return viewer.view(plans.record(id), plans.open(id, destination));
  }

  @PutMapping("/plans/{id}")
  PlanViews.PlanView save(
      @PathVariable long id,
      @RequestParam(defaultValue = "0") int destination,
      @RequestBody PlanViews.SavePlan wanted,
      Principal principal) {
    List<String> followed = plans.save(id, wanted, destination, principal.getName());
    return view(id, destination).withFollowed(followed);
  }

  /** What deleting a plan means. */
  @GetMapping("/plans/{id}/deletion")
  Deletion deletion(@PathVariable long id) {
    return plans.deletion(id);
  }

  @DeleteMapping("/plans/{id}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void delete(@PathVariable long id) {
    plans.delete(id);
  }

  @PutMapping("/plans/{id}/source")
  PlanViews.PlanView useSource(@PathVariable long id, @RequestBody UseSource wanted) {
    plans.useSource(id, wanted.source());
    return view(id, 0);
  }

  /** The stages of a fill that is tried; the plan stays as it is. */
  @PostMapping("/plans/{id}/stages")
  StageTable stages(
      @PathVariable long id,
      @RequestParam(defaultValue = "0") int destination,
      @RequestBody PlanViews.FillTrial trial,
      Principal principal) {
    return viewer.stages(plans.open(id, destination), trial, principal.getName());
  }

  /**
   * The columns that could feed a field, the likeliest first; the plan stays as it is.
   *
   * @param column the one that is wanted; all if none is said
   */
  @GetMapping("/plans/{id}/offers")
  List<PlanViews.Offer> offers(
      @PathVariable long id,
      @RequestParam(defaultValue = "0") int destination,
      @RequestParam String field,
      @RequestParam(required = false) @Nullable String column,
      Principal principal) {
    return offers.offers(plans.open(id, destination), field, column, principal.getName());
  }

  /** Tables that could be filled besides, from columns that are left; the plan stays as it is. */
  @GetMapping("/plans/{id}/further")
  List<PlanViews.FurtherTable> further(@PathVariable long id) {
    return offers.further(plans.open(id));
  }

  /** A table that could be filled besides, as a draft would fill it; the plan stays as it is. */
  @GetMapping("/plans/{id}/further/{table}")
  PlanViews.FurtherTable further(@PathVariable long id, @PathVariable String table) {
    return offers.further(plans.open(id), table);
  }

  /** How many rows of a column each field of a linked table knows. */
  @GetMapping("/plans/{id}/lookups")
  List<PlanDraft.Lookup> lookups(
      @PathVariable long id,
      @RequestParam(defaultValue = "0") int destination,
      @RequestParam String field,
      @RequestParam String column) {
    return offers.lookups(plans.open(id, destination), field, column);
  }

  /** Kinds of steps, the one that frees most troubled rows first; the plan stays as it is. */
  @PostMapping("/plans/{id}/trials")
  List<Trials.Trial> trials(
      @PathVariable long id,
      @RequestParam(defaultValue = "0") int destination,
      @RequestBody PlanViews.StepSearch wanted,
      Principal principal) {
    return viewer.trials(plans.open(id, destination), wanted, principal.getName());
  }

  /** What a formula gives for a record; the plan stays as it is. */
  @PostMapping("/plans/{id}/formula")
  PlanViews.FormulaResult formula(
      @PathVariable long id,
      @RequestParam(defaultValue = "0") int destination,
      @RequestBody PlanViews.FormulaTrial trial,
      Principal principal) {
    return viewer.formula(plans.open(id, destination), trial, principal.getName());
  }

  /** The application's values that a word may mean, the likeliest first. */
  @PostMapping("/plans/{id}/suggestions")
  List<PlanViews.Suggestion> suggest(
      @PathVariable long id,
      @RequestParam(defaultValue = "0") int destination,
      @RequestBody PlanViews.WordSearch wanted) {
    return viewer.suggest(plans.open(id, destination), wanted);
  }

  /** The plans that use a phrasebook. */
  @GetMapping("/phrasebook-uses")
  List<PlanViews.BookUse> using(@RequestParam String book) {
    return plans.using(book);
  }

  @GetMapping("/functions")
  List<PlanViews.FunctionHelp> functions() {
    return Functions.all().stream()
        .map(
            f ->
                new PlanViews.FunctionHelp(
                    f.name(), f.group().title(), f.signature(), f.says(), f.ours(), f.examples()))
        .toList();
  }

  @GetMapping("/plans/{id}/window")
  List<PlanViews.WindowRow> window(
      @PathVariable long id,
      @RequestParam(defaultValue = "0") int destination,
      @RequestParam long from,
      @RequestParam int count,
      Principal principal) {
    return viewer.window(
        plans.open(id, destination), from, Asked.count(count, 1_000), principal.getName());
  }

  /** The next row in trouble after a row, from the top again if there is none below; -1 if none. */
  @GetMapping("/plans/{id}/troubled")
  RowIndex troubled(
      @PathVariable long id,
      @RequestParam(defaultValue = "0") int destination,
      @RequestParam long after,
      Principal principal) {
    return new RowIndex(
        viewer.nextTroubled(plans.open(id, destination), after, principal.getName()));
  }

  /** The record on a line, or the first one below it. */
  @GetMapping("/plans/{id}/row")
  RowIndex row(@PathVariable long id, @RequestParam long line) {
    return new RowIndex(plans.open(id).rows().rowOfLine(line));
  }

  /**
   * How the rows of the file match.
   *
   * @param of the class whose rows are shown, such as {@code several}
   */
  @GetMapping("/plans/{id}/match")
  MatchSurvey.MatchClasses match(
      @PathVariable long id,
      @RequestParam(defaultValue = "0") int destination,
      @RequestParam(defaultValue = "one") String of,
      @RequestParam(defaultValue = "20") int pairs,
      Principal principal) {
    MatchClass shown =
        Arrays.stream(MatchClass.values())
            .filter(c -> c.word().equals(of))
            .findFirst()
            .orElseThrow(
                () ->
                    ErrorCode.NO_SUCH_CLASS.error(
                        "Rows don't match “"
                            + Asked.shown(of)
                            + "”, but one, none, several, similar, repeats, decided or troubled."));
    return viewer.match(
        plans.open(id, destination), principal.getName(), shown, Asked.count(pairs, 1_000));
  }

  /** Match keys that could be added, and those for which the table has no index. */
  @GetMapping("/plans/{id}/match/keys")
  KeyAdvisor.Keys keys(
      @PathVariable long id,
      @RequestParam(defaultValue = "0") int destination,
      Principal principal) {
    return viewer.keys(plans.open(id, destination), principal.getName());
  }

  @GetMapping("/plans/{id}/lines")
  List<PlanViews.RawLine> lines(
      @PathVariable long id,
      @RequestParam long from,
      @RequestParam int count,
      @RequestParam(defaultValue = "0") int firstColumn,
      @RequestParam(defaultValue = "60") int columns) {
    return viewer.lines(
        plans.open(id),
        from,
        Asked.count(count, 1_000),
        Math.max(0, firstColumn),
        Asked.count(columns, 20_000));
  }

  /** The first lines of the file as text, before they are parted into cells. */
  @GetMapping("/plans/{id}/text")
  List<String> text(@PathVariable long id) {
    return plans.text(id, 12);
  }

  /** Records as another reading would give them; the plan stays as it is. */
  @PostMapping("/plans/{id}/preview")
  PlanViews.ReadingPreview preview(
      @PathVariable long id, @RequestBody PlanViews.ReadingTrial trial) {
    return viewer.preview(plans.tryReading(id, trial.reading()), trial);
  }

  @GetMapping("/steps")
  List<PlanViews.StepHelp> steps() {
    return Arrays.stream(StepKind.values())
        .map(
            k ->
                new PlanViews.StepHelp(
                    k.word(),
                    k.group().word(),
                    k.title(),
                    k.help(),
                    k.settings().stream()
                        .map(
                            s ->
                                new PlanViews.SettingHelp(
                                    s.name(), s.type(), s.required(), s.choices()))
                        .toList()))
        .toList();
  }
}
