package org.zestyporter.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A run is taken back, with what was edited since it decided. */
class UndoTest extends DemoVisit {
  private static String added;
  private static String changed;

  @Test
  @Order(1)
  void aFileIsBroughtIn() throws IOException {
    browser.go(demo.address());
    signIn(demo.password());
    browser.sees("Nothing has been brought in yet");
    drop(demo.files().resolve("winter-arrivals.xlsx"));
    browser.click(".proposal button", "Begin");
    browser.sees("Fields of vessel");
    browser.type("r");
    browser.sees("1,204 rows rehearsed, nothing written");
    browser.click("button", "Go on to the Run");
    browser.sees("What is about to happen");
    browser.click("button", " and change ");
    browser.sees("Yes, to the row and to the last digit");
    added = registration("new");
    changed = registration("changed");
  }

  private static String registration(String outcome) {
    return (String)
        browser.script(
            "return fetch('/api/runs?limit=1').then(r => r.json())"
                + ".then(l => fetch('/api/runs/' + l[0].id + '/ledger?limit=1&outcome="
                + outcome
                + "')).then(r => r.json())"
                + ".then(p => p.entries[0].after[p.fields.indexOf('registration')])");
  }

  @Test
  @Order(2)
  void someOfItsRecordsAreEditedAfterwards(@TempDir Path folder) throws IOException {
    Path file = folder.resolve("after-the-survey.csv");
    Files.writeString(
        file,
        "registration;name;length_m\n"
            + added
            + ";Wren of Ayr;11.30\n"
            + changed
            + ";Tern of Ayr;12.40\n");
    plan(file, "vessel");
    onlyUpdate();
    browser.type("r");
    browser.sees("2 rows rehearsed, nothing written");
    browser.click("button", "Go on to the Run");
    browser.click("button", "Change 2 records");
    browser.sees("Yes, to the row and to the last digit");
  }

  /** Has rows without a record skipped, so that the fields of new records need no values. */
  private static void onlyUpdate() {
    browser.script(
        "return fetch('/api/plans/2').then(r => r.json()).then(v => fetch('/api/plans/2', {"
            + "method: 'PUT', headers: {'Content-Type': 'application/json',"
            + "'X-XSRF-TOKEN': document.cookie.replace(/.*XSRF-TOKEN=([^;]*).*/, '$1')},"
            + "body: JSON.stringify({revision: v.revision, plan: {...v.plan,"
            + " destinations: v.plan.destinations.map(d =>"
            + " ({...d, policies: {...d.policies, onNone: 'skip'}}))}})}))");
    browser.go(browser.address());
    browser.sees("revision 2");
  }

  @Test
  @Order(3)
  void whatWasEditedSinceIsShownBeforeTheRunIsTakenBack() throws IOException {
    browser.click("a.place", "Runs");
    browser.click("td a", "Winter arrivals");
    browser.sees("Take this run back…");
    browser.type("u");
    browser.sees("2 records were edited since");
    browser.sees("Wren of Ayr");
    browser.sees("removed");
    picture("undo");
    browser.click(".do button", "back");
    browser.sees("Yes, every record is accounted for");
    assertThat(browser.text("[data-outcome=skipped]")).contains("2");
    checked("undone");
    browser.click("a.place", "Runs");
    browser.sees("taken back by");
    browser.sees("undo of");
  }

  @Test
  @Order(4)
  void theUndoIsUndone() {
    browser.click("td a", "Winter arrivals");
    browser.sees("Undo this undo…");
    browser.type("u");
    browser.sees("brought back");
    browser.click(".do button", "back");
    browser.sees("Brought back");
    browser.sees("Yes, every record is accounted for");
    assertThat(BARRIERS).isEmpty();
  }
}
