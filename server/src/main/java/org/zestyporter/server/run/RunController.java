package org.zestyporter.server.run;

import java.security.Principal;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;
import org.springframework.web.servlet.mvc.method.annotation.StreamingResponseBody;
import org.zestyporter.core.run.FieldSummary;
import org.zestyporter.core.run.LedgerEntry;
import org.zestyporter.core.run.Outcome;
import org.zestyporter.core.run.RecordFile;
import org.zestyporter.core.run.Returns;
import org.zestyporter.core.undo.Decisions;
import org.zestyporter.core.undo.Edited;
import org.zestyporter.core.undo.Prospect;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.server.web.Asked;
import org.zestyporter.server.web.Deletion;

@RestController
@RequestMapping("/api")
class RunController {
  private static final int MAX_PAGE = 500;
  private static final int MAX_DECISIONS = 10_000;
  private static final MediaType WORKBOOK =
      MediaType.parseMediaType("application/vnd.openxmlformats-officedocument.spreadsheetml.sheet");
  private static final MediaType TEXT = MediaType.parseMediaType("text/csv");

  private final RunService runs;
  private final LedgerReader ledger;
  private final Jobs jobs;
  private final UndoService undos;
  private final ReturnsService returns;
  private final RecordService records;
  private final ReturnedService returned;
  private final Recounts recounts;

  RunController(
      RunService runs,
      LedgerReader ledger,
      Jobs jobs,
      UndoService undos,
      ReturnsService returns,
      RecordService records,
      ReturnedService returned,
      Recounts recounts) {
    this.records = records;
    this.returned = returned;
    this.recounts = recounts;
    this.undos = undos;
    this.returns = returns;
    this.runs = runs;
    this.ledger = ledger;
    this.jobs = jobs;
  }

  /** The last rehearsal and the last run of a plan. */
  record LastOnes(RunService.@Nullable RunView rehearsal, RunService.@Nullable RunView run) {}

  @PostMapping("/plans/{plan}/rehearsals")
  @ResponseStatus(HttpStatus.ACCEPTED)
  RunService.RunView rehearse(@PathVariable long plan, Principal principal) {
    return runs.rehearse(plan, principal.getName());
  }

  /** Counts the last rehearsal anew by the plan as it is now, where answers have changed it. */
  @PostMapping("/plans/{plan}/recount")
  Recounts.RecountView recount(@PathVariable long plan, Principal principal) {
    return recounts.recount(plan, principal.getName());
  }

  @PostMapping("/plans/{plan}/runs")
  @ResponseStatus(HttpStatus.ACCEPTED)
  RunService.RunView run(@PathVariable long plan, Principal principal) {
    return runs.run(plan, principal.getName());
  }

  @GetMapping("/plans/{plan}/last")
  LastOnes last(@PathVariable long plan) {
    return new LastOnes(runs.last(plan, "rehearsal"), runs.last(plan, "run"));
  }

  @GetMapping("/runs")
  List<RunService.RunView> newest(@RequestParam(defaultValue = "100") int limit) {
    return runs.newest(Asked.count(limit, MAX_PAGE));
  }

  @GetMapping("/runs/{id}")
  RunService.RunView find(@PathVariable long id) {
    return runs.find(id);
  }

  /** What deleting a run means. */
  @GetMapping("/runs/{id}/deletion")
  Deletion deletion(@PathVariable long id) {
    return runs.deletion(id);
  }

  @DeleteMapping("/runs/{id}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void delete(@PathVariable long id) {
    runs.delete(id);
  }

  /**
   * What is decided about records that were edited since the run.
   *
   * @param edited for those that are not decided one by one; {@code keep} if it is left out
   */
  record UndoRequest(@Nullable Edited edited, @Nullable List<Single> decisions) {}

  /** What is decided about one record. */
  record Single(int destination, long row, int part, Edited edited) {}

  /** What taking a run back would do, as things stand. */
  @GetMapping("/runs/{id}/undo")
  Prospect prospect(@PathVariable long id) {
    return undos.look(id);
  }

  @PostMapping("/runs/{id}/undo")
  @ResponseStatus(HttpStatus.ACCEPTED)
  RunService.RunView undo(
      @PathVariable long id, @RequestBody UndoRequest request, Principal principal) {
    List<Single> singles = request.decisions() == null ? List.of() : request.decisions();
    if (singles.size() > MAX_DECISIONS) {
      throw ErrorCode.NUMBER.error(
          "At most " + MAX_DECISIONS + " records can be decided one by one.");
    }
    Map<Decisions.Place, Edited> single = new HashMap<>();
    for (Single one : singles) {
      if (one.edited() == null) {
        throw ErrorCode.WORD.error(
            "Say for each record what is decided: keep, put-back or fields.");
      }
      single.put(new Decisions.Place(one.destination(), one.row(), one.part()), one.edited());
    }
    Edited forAll = request.edited() == null ? Edited.KEEP : request.edited();
    return undos.undo(id, new Decisions(forAll, single), principal.getName());
  }

  /** Goes on with a run that was cut off between two batches. */
  @PostMapping("/runs/{id}/resume")
  @ResponseStatus(HttpStatus.ACCEPTED)
  RunService.RunView resume(@PathVariable long id) {
    return runs.resume(id);
  }

  @PostMapping("/runs/{id}/stop")
  @ResponseStatus(HttpStatus.ACCEPTED)
  void stop(@PathVariable long id) {
    runs.find(id);
    jobs.stop(id);
  }

  /** All rehearsals, runs and undos that are going, by whomever they were begun. */
  @GetMapping("/going-on")
  List<Job.Stand> work() {
    return jobs.all();
  }

  /** The same as server-sent events named {@code work}, as often as anything moves. */
  @GetMapping(value = "/going-on/events", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
  SseEmitter workEvents() {
    return jobs.listen();
  }

  /**
   * A page of the ledger of one destination.
   *
   * @param waiting only rows that wait for an answer, or only others
   * @param changed only rows that write this field differently
   * @param problem only rows with a problem of this kind
   * @param field of these, only those with it in this field
   * @param line only rows of these lines of the file
   * @param destination its place in the plan, from 0
   */
  @GetMapping("/runs/{id}/ledger")
  LedgerReader.LedgerPage page(
      @PathVariable long id,
      @RequestParam(required = false) @Nullable String outcome,
      @RequestParam(required = false) @Nullable Boolean waiting,
      @RequestParam(required = false) @Nullable String changed,
      @RequestParam(required = false) @Nullable String problem,
      @RequestParam(required = false) @Nullable String field,
      @RequestParam(required = false) @Nullable Set<Long> line,
      @RequestParam(required = false) @Nullable String search,
      @RequestParam(defaultValue = "0") int destination,
      @RequestParam(defaultValue = "0") long offset,
      @RequestParam(defaultValue = "100") int limit) {
    runs.find(id);
    if (line != null && line.size() > MAX_PAGE) {
      throw ErrorCode.NUMBER.error("Nobody can be shown more than " + MAX_PAGE + " lines at once.");
    }
    LedgerFilter filter =
        new LedgerFilter(
            given(outcome, RunController::outcome),
            waiting,
            given(changed, word -> word),
            given(problem, RunController::problem),
            given(field, word -> word),
            line == null || line.isEmpty() ? null : line,
            search);
    return ledger.page(id, destination, filter, Asked.from(offset), Asked.count(limit, MAX_PAGE));
  }

  private static <T> @Nullable T given(@Nullable String word, Function<String, T> read) {
    return word == null || word.isEmpty() ? null : read.apply(word);
  }

  private static ProblemCode problem(String word) {
    return Arrays.stream(ProblemCode.values())
        .filter(c -> c.word().equals(word))
        .findFirst()
        .orElseThrow(
            () -> ErrorCode.WORD.error("There is no kind of problem “" + Asked.shown(word) + "”."));
  }

  /** What a rehearsal or run does to each field of the records that are there. */
  @GetMapping("/runs/{id}/fields")
  List<FieldSummary.Changed> fields(
      @PathVariable long id, @RequestParam(defaultValue = "0") int destination) {
    runs.find(id);
    return ledger.fields(id, destination);
  }

  /** How a rehearsal differs from the one before it. */
  record Before(LedgerComparison.@Nullable Since since) {}

  @GetMapping("/runs/{id}/since")
  Before since(@PathVariable long id) {
    return new Before(runs.since(id));
  }

  private static Outcome outcome(String word) {
    return Arrays.stream(Outcome.values())
        .filter(o -> o.word().equals(word))
        .findFirst()
        .orElseThrow(
            () ->
                ErrorCode.OUTCOME.error(
                    "There is no outcome “"
                        + Asked.shown(word)
                        + "”; there are new, changed, unchanged, skipped, rejected and removed."));
  }

  /**
   * The rejected rows of a rehearsal or run as a file, to be corrected and brought back.
   *
   * @param format {@code xlsx} or {@code csv}
   */
  @GetMapping("/runs/{id}/returns")
  ResponseEntity<StreamingResponseBody> returns(
      @PathVariable long id, @RequestParam(defaultValue = "xlsx") String format) {
    Returns.Format as = format(format, "Rejected rows are");
    Returns rows = returns.of(id);
    return file(as, returns.fileName(id), out -> rows.write(out, as));
  }

  /** What became of the rows that a run rejected, once they were brought back. */
  @GetMapping("/runs/{id}/returned")
  ReturnedService.Returned returned(@PathVariable long id) {
    runs.find(id);
    return returned.of(id);
  }

  private static Returns.Format format(String word, String what) {
    return switch (word) {
      case "xlsx" -> Returns.Format.XLSX;
      case "csv" -> Returns.Format.CSV;
      default ->
          throw ErrorCode.WORD.error(
              what + " taken away as xlsx or csv, not as “" + Asked.shown(word) + "”.");
    };
  }

  private static ResponseEntity<StreamingResponseBody> file(
      Returns.Format as, String name, StreamingResponseBody body) {
    String ending = as.name().toLowerCase(Locale.ROOT);
    return ResponseEntity.ok()
        .contentType(as == Returns.Format.XLSX ? WORKBOOK : TEXT)
        .header(
            HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"" + name + "." + ending + "\"")
        .body(body);
  }

  /**
   * The record of a rehearsal or run as a file: as {@code xlsx} with a summary and the ledger, as
   * {@code csv} the ledger alone.
   */
  @GetMapping("/runs/{id}/record")
  ResponseEntity<StreamingResponseBody> record(
      @PathVariable long id, @RequestParam(defaultValue = "xlsx") String format) {
    Returns.Format as = format(format, "The record of a run is");
    RecordFile record = records.of(id);
    return file(
        as, records.fileName(id), as == Returns.Format.XLSX ? record::workbook : record::csv);
  }

  /** Rows that came out otherwise than they were rehearsed, because the records had changed. */
  @GetMapping("/runs/{id}/differences")
  LedgerComparison.Differences differences(@PathVariable long id) {
    return runs.differences(id);
  }

  @GetMapping("/runs/{id}/lines/{line}")
  LedgerEntry line(@PathVariable long id, @PathVariable long line) {
    runs.find(id);
    return ledger.line(id, line);
  }
}
