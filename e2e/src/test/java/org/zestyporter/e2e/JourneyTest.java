package org.zestyporter.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.Keys;
import org.openqa.selenium.support.ui.Select;
import org.zestyporter.demo.Arrivals;
import org.zestyporter.demo.Marina;

/**
 * A newcomer's way, in the real interface: from a dropped file to records, and the same file again.
 * The pictures of the documentation are taken on the way.
 */
class JourneyTest extends DemoVisit {
  private static final Arrivals.Facts FACTS = Marina.open().arrivals().facts();

  @Test
  @Order(1)
  void wrongPasswordIsRefusedAndTheRightOneOpensTheDesk() throws IOException {
    browser.go(demo.address());
    signIn("not the password");
    browser.sees("The name or the password is not right");
    checked("sign-in");
    signIn(demo.password());
    browser.sees("Nothing has been brought in yet");
  }

  @Test
  @Order(2)
  void filesThatAreNoTableAreRefusedInPlainWords(@TempDir Path folder) throws IOException {
    Path empty = Files.createFile(folder.resolve("empty.csv"));
    drop(empty);
    browser.sees("The file is empty: it holds 0 bytes");

    Path picture = folder.resolve("photo.xlsx");
    Files.write(picture, new byte[] {(byte) 0x89, 'P', 'N', 'G', 13, 10, 26, 10, 0, 0, 0, 13});
    drop(picture);
    browser.sees("it is a picture");

    Path broken = folder.resolve("broken.xlsx");
    byte[] whole = Files.readAllBytes(demo.files().resolve("winter-arrivals.xlsx"));
    Files.write(broken, java.util.Arrays.copyOf(whole, whole.length / 2));
    drop(broken);
    browser.sees("damaged or cut short");
    assertThat(browser.text("body")).doesNotContain("Exception");
  }

  @Test
  @Order(3)
  void droppedFileFillsTheFieldsByItself() throws IOException {
    drop(demo.files().resolve("winter-arrivals.xlsx"));
    browser.sees("10 of 10 columns find a field");
    browser.click(".proposal button", "Begin");
    browser.sees("Fields of vessel");
    browser.sees("Not used:");
    assertThat(browser.text(".unused")).contains("Not used: none");
    assertThat(browser.text("[data-field=type_id]"))
        .contains("Kind finds name")
        .contains(String.valueOf(FACTS.unknownKinds()));
    assertThat(browser.text("[data-field=length_m]"))
        .contains("LOA (ft) then 3 steps")
        .contains(String.valueOf(FACTS.badLengths()));
  }

  @Test
  @Order(4)
  void readShowsTheRawSheetWithItsEvidence() throws IOException {
    browser.type("1");
    browser.sees("How it is read");
    browser.sees("Quillhaven Marina, arrivals");
    assertThat(browser.text("tr.titles")).contains("Reg No", "LOA (ft)");
    browser.sees("begins “Total” and is hardly filled");
    picture("read");
  }

  @Test
  @Order(5)
  void fillIsCorrectedAndItsEffectIsSeenAtOnce() throws IOException {
    browser.type("2");
    browser.find("[data-field=length_m]").click();
    browser.find("td.bad", "two numbers, feet and inches");
    browser.find("tr.tr", "tbc");
    picture("fill");

    browser.find("[data-field=type_id]").click();
    browser
        .find("tr.tr", "Ketch rig")
        .findElements(org.openqa.selenium.By.cssSelector("button"))
        .get(0)
        .click();
    browser.find(".answer").sendKeys(Keys.chord(Keys.CONTROL, "a"), "ketch" + Keys.ENTER);
    browser.until(
        d ->
            browser
                .text("[data-field=type_id]")
                .contains(String.valueOf(FACTS.unknownKinds() - 22)));
    browser.sees("revision 2");
    browser.type("t");
    browser.until(d -> !browser.text(".bt .end b").contains("Record 1 "));
  }

  @Test
  @Order(6)
  void matchKeyIsChosen() throws IOException {
    browser.type("3");
    browser.sees("Match keys");
    browser.find(".key .big", "registration");
    browser.sees("match one record");
    browser.sees("Pairs that match one record");

    // boats of one name are several, and nobody guesses which one is meant
    browser.type("n");
    browser.sees("find several");
    browser.click("button.class", "match several");
    browser.sees("This one");
    browser.sees("Would tell apart what finds several");
    picture("match");
    browser.click(".key.on button", "remove");
    browser.sees("There are none.");
    browser.sees("by registration");
  }

  @Test
  @Order(7)
  void rehearsalCountsEveryRow() throws IOException {
    browser.type("r");
    browser.sees("1,204 rows rehearsed, nothing written");
    // lines with the same key that say different things wait, until one rule answers for all
    assertThat(outcome("skipped")).isZero();
    browser.sees("Lines with the same registration say different things");
    browser.click("button", "Side by side");
    browser.sees("Which is right for ");
    browser.type("4");
    browser.click("button", "Keep the last");
    browser.until(d -> outcome("skipped") == FACTS.repeated());
    assertThat(outcome("changed") + outcome("unchanged") + outcome("new"))
        .isEqualTo(FACTS.changed() + FACTS.unchanged() + FACTS.added() + 22);
    assertThat(outcome("rejected") + outcome("waiting")).isEqualTo(FACTS.rejected() - 22);
    browser.sees("Problems by cause");
    browser.sees("gaff cutter");
    picture("rehearse");
  }

  @Test
  @Order(8)
  void whatBecomesOfFieldsIsToldAndTheRecordCanBeFiled() {
    browser.type("v");
    browser.sees("What it comes to");
    browser.click("td button", "berth_id");
    browser.sees("Only rows that change berth_id");
    assertThat(browser.address()).endsWith("?outcome=changed&changed=berth_id");
    browser.click("button", "all rows");
    browser.click("button", "link");
    browser.sees("Only line ");
    assertThat(browser.address()).contains("?line=");
    browser.go(browser.address());
    browser.sees("Only line ");
    browser.click("a", "record");
    browser.sees("Its SHA-256");
    browser.sees("It adds up, to the row and to the last digit.");
    browser.click("a", "back to the Plan");
    browser.sees("1,204 rows rehearsed, nothing written");
  }

  private static int outcome(String name) {
    String text = browser.text("[data-outcome=" + name + "]");
    return Integer.parseInt(text.replaceAll("[^0-9]", ""));
  }

  @Test
  @Order(9)
  void runBalancesAndShowsTheRecordsItTouched() throws IOException {
    int added = outcome("new");
    browser.click("button", "Go on to the Run");
    browser.sees("What is about to happen");
    browser.sees("All is written together, or nothing is");
    picture("run-before");
    browser.click("button", "Add " + added + " and change");
    browser.sees("Yes, to the row and to the last digit");
    assertThat(outcome("new")).isEqualTo(added);
    picture("run");

    browser.click("aside a", "new record");
    browser.sees("New by one Run");
    browser.sees(added + " records");
    browser.type(Keys.ENTER);
    browser.sees("whole number");
    browser.sees("1 of " + added);
    browser.type(Keys.ENTER);
    browser.click("a", "Show all");
    browser.sees(String.format("%,d records", Marina.VESSELS + added));
    picture("records");
  }

  @Test
  @Order(10)
  void sameFileAgainChangesNothing() throws IOException {
    browser.click("a.place", "Desk");
    browser.sees("Recent runs");
    drop(demo.files().resolve("winter-arrivals.xlsx"));
    browser.sees("10 of 10 headings the same as last time");
    picture("desk");
    browser.click(".proposal button", "Open");
    browser.sees("Fields of vessel");
    browser.type("r");
    browser.sees("1,204 rows rehearsed, nothing written");
    // what was rehearsed before the run stays in view until the new rehearsal is there
    browser.until(d -> outcome("new") == 0);
    assertThat(outcome("changed")).isZero();
    assertThat(outcome("unchanged"))
        .isEqualTo(FACTS.changed() + FACTS.unchanged() + FACTS.added() + 22);
  }

  @Test
  @Order(11)
  void sessionThatEndsInMidEditLosesNothing() throws IOException {
    browser.type("2");
    browser.find("[data-field=notes]").click();
    browser.sees("On its way to notes");
    browser.deleteCookie("PORTER_SESSION");
    new Select(browser.find("select.kind")).selectByVisibleText("Fixed value");
    browser.sees("You were signed out");
    browser.find("input[name=password]").sendKeys(demo.password());
    browser.click("button", "Sign in");
    browser.until(d -> browser.text("[data-field=notes]").contains("always"));
    browser.sees("revision 6");
    browser.control("z");
    browser.until(d -> browser.text("[data-field=notes]").contains("Notes"));
    browser.sees("revision 7");
  }

  private static void type(String label, String text) {
    browser
        .find("form label", label)
        .findElement(org.openqa.selenium.By.cssSelector("input"))
        .sendKeys(text);
  }

  /** An address is filled in by parts, and what does not answer is told and not kept. */
  @Test
  @Order(12)
  void aConnectionIsFilledInByParts() throws IOException {
    browser.click("a.place", "Connections");
    browser.sees("1 connection");
    browser.click("form button", "MariaDB");
    type("Application", "Boatyard");
    type("Name", "yard");
    type("Host", "127.0.0.1");
    type("Port", "1");
    type("Database", "yard");
    type("User", "porter");
    browser.sees("jdbc:mariadb://127.0.0.1:1/yard");
    browser.click("form button", "Try and keep");
    browser.sees("nothing answers at its host and port");
    picture("connections");
    browser.click("td button", "Change");
    browser.sees("Leave as it was");
    browser.click("form button", "Try");
    browser.sees("answers: 10 tables");
    browser.click("form button", "Leave as it was");
    browser.sees("Add a connection");
  }

  @Test
  @Order(12)
  void plansRunsAndTheDark() throws IOException {
    browser.click("a.place", "Phrasebooks");
    browser.find(".book", "translated 22 rows");
    browser.click("a.place", "Plans");
    browser.sees("Winter arrivals");
    picture("plans");
    browser.click("a.place", "Runs");
    browser.sees("0001");
    picture("runs");
    browser.click("td a", "Winter arrivals");
    browser.sees("Yes, to the row and to the last digit");
    assertThat(browser.address()).contains("run?run=");
    browser.click("a.place", "Plans");
    browser.click("td a", "Winter arrivals");
    browser.find("[data-field=length_m]").click();
    browser.click(".foot button", "Dark");
    browser.find("td.bad", "two numbers");
    picture("fill-dark");
    browser.click(".foot button", "Light");
  }

  @Test
  @Order(13)
  void textFileGoesTheSameWay(@TempDir Path folder) throws IOException {
    Path file = folder.resolve("new-kinds.csv");
    Files.write(file, "Code;Name\nHBT;houseboat\nSLP;sloop\n".getBytes(StandardCharsets.UTF_8));
    browser.click("a.place", "Desk");
    drop(file);
    browser.sees("2 of 2 columns find a field");
    assertThat(browser.text(".proposal")).contains("vessel_type");
    browser.click(".proposal button", "Begin");
    browser.sees("Fields of vessel_type");
    browser.type("r");
    browser.sees("2 rows rehearsed, nothing written");
    assertThat(outcome("new")).isEqualTo(1);
    assertThat(outcome("unchanged")).isEqualTo(1);
  }

  @Test
  @Order(14)
  void laterOfTwoEditorsIsToldAndCanTakeTheOthersPlan() throws IOException {
    browser.click("a.place", "Plans");
    browser.click("td a", "Winter arrivals");
    browser.sees("Fields of vessel");
    browser.script(
        "return fetch('/api/plans/1').then(r => r.json()).then(v => fetch('/api/plans/1', {"
            + "method: 'PUT', headers: {'Content-Type': 'application/json',"
            + "'X-XSRF-TOKEN': document.cookie.replace(/.*XSRF-TOKEN=([^;]*).*/, '$1')},"
            + "body: JSON.stringify({revision: v.revision,"
            + "plan: {...v.plan, name: 'Arrivals of the other'}})}))");
    browser.find("[data-field=notes]").click();
    new Select(browser.find("select.kind")).selectByVisibleText("Fixed value");
    browser.sees("saved this plan meanwhile");
    browser.click("button", "Load it again");
    browser.until(
        d -> browser.find("input.title").getAttribute("value").equals("Arrivals of the other"));
    assertThat(browser.text("[data-field=notes]")).doesNotContain("always");
  }

  @Test
  @Order(15)
  void planThatMissesSomethingSaysWhatBeforeItIsRehearsed(@TempDir Path folder) throws IOException {
    Path file = folder.resolve("no-titles.csv");
    Files.writeString(file, "QH-1;Wren;8,5;03.11.2026\nQH-2;Tern;9;04.11.2026\n");
    browser.click("a.place", "Desk");
    drop(file);
    browser.sees("dropped just now");
    another("vessel");
    browser.sees("Fields of vessel");
    browser.type("1");
    browser.sees("No line looks like titles");
    browser.sees("tells day from month");
    browser.click("button", "Day first");
    browser.until(d -> browser.text(".trip").contains("1 to confirm"));
    browser.click("button", "There are none");
    browser.until(d -> !browser.text(".trip").contains("to confirm"));
    browser.type("r");
    browser.sees("Before it can be rehearsed");
    browser.sees("registration is required and nothing fills it yet");
    browser.click("li button", "Mend");
    browser.sees("On its way to registration");
    new Select(browser.find("select.kind")).selectByVisibleText("Column");
    browser.until(d -> browser.text("[data-field=registration]").contains("Column A"));
    browser.until(d -> browser.text("[data-field=registration]").contains("QH-1"));
  }

  @Test
  @Order(16)
  void stepIsTriedBeforeItIsKept() {
    // single letters are off while a list of choices has the focus
    browser.find(".mark").click();
    browser.type("a");
    browser.sees("makes one space of several");
    browser.find(".say input").sendKeys("case" + Keys.ARROW_DOWN);
    browser.find("th.tried", "Change case");
    browser.type(Keys.ESCAPE);
    browser.until(d -> browser.all("th.tried").isEmpty());
    assertThat(browser.text("[data-field=registration]")).contains("then 1 step");
    browser.type("a");
    browser.sees("makes one space of several");
    browser.type(Keys.ARROW_DOWN, Keys.ARROW_DOWN, Keys.ENTER);
    browser.until(d -> browser.text("[data-field=registration]").contains("then 2 steps"));
    browser.control("z");
    browser.until(d -> browser.text("[data-field=registration]").contains("then 1 step"));
  }

  @Test
  @Order(17)
  void rowsFillSeveralTablesAsIsSaidOnTheScreen(@TempDir Path folder) throws IOException {
    Path file = folder.resolve("keepers.csv");
    Files.writeString(
        file,
        """
        E-mail;Given name;Family name;Kind;Streets;Postcode;Town
        ada@oxbow.example;Ada;Marsh;seasonal;Quay 1 | Mill Row 7;QH1;Oxbow
        bo@oxbow.example;Bo;Lind;seasonal;North Pier 2 | South Pier 9 | West Pier 4;QH2;Oxbow
        """);
    plan(file, "owner");
    browser.click("button", "another table…");
    new Select(browser.find("dialog[open] select")).selectByVisibleText("owner_address");
    browser.click("dialog[open] form button", "Add it");
    browser.sees("Fields of owner_address");
    said("What makes a record of owner_address").selectByValue("Streets");
    browser.until(d -> browser.text(".fields").contains("5 parts of 2 rows"));
    said("Where cells of Streets are parted").selectByVisibleText("commas");
    browser.until(d -> browser.text(".fields").contains("2 parts of 2 rows"));
    said("Where cells of Streets are parted").selectByVisibleText("bars");
    browser.until(d -> browser.text(".fields").contains("5 parts of 2 rows"));
    Select under = said("What records of owner_address belong to");
    assertThat(under.getFirstSelectedOption().getText()).isEqualTo("owner, by owner_id");
    browser
        .find("input[aria-label='What the plan calls owner_address']")
        .sendKeys("places", Keys.TAB);
    browser.until(d -> browser.text(".strip").contains("places"));
    checked("which-rows");
    browser.click("button", "Rehearse");
    browser.sees("2 rows rehearsed, nothing written");
    assertThat(browser.text("main")).contains("places").contains("5");
  }

  private static Select said(String of) {
    return new Select(browser.find("select[aria-label='" + of + "']"));
  }

  @Test
  @Order(18)
  void deletingSaysBeforehandWhatGoesWithIt() throws IOException {
    browser.click("a.place", "Files");
    browser.sees("files brought so far");
    checked("files");
    browser
        .until(
            d ->
                browser.all("tbody tr").stream()
                    .filter(row -> row.getText().contains("new-kinds.csv"))
                    .findFirst()
                    .map(row -> row.findElement(org.openqa.selenium.By.tagName("button")))
                    .orElse(null))
        .click();
    browser.sees("The file is read by the plan “New kinds”");
    browser.click("button", "Keep it");
    browser.click("a.place", "Plans");
    browser
        .until(
            d ->
                browser.all("tbody tr").stream()
                    .filter(row -> row.getText().contains("New kinds"))
                    .findFirst()
                    .map(row -> row.findElement(org.openqa.selenium.By.tagName("button")))
                    .orElse(null))
        .click();
    browser.sees("Delete the plan “New kinds”?");
    browser.click(".panel button", "Delete");
    browser.until(d -> !browser.text("table").contains("New kinds"));
    assertThat(browser.text("table")).contains("No titles");
  }

  @Test
  @Order(19)
  void noViewHasABarrier() {
    assertThat(BARRIERS).isEmpty();
  }

  @Test
  @Order(20)
  void theBrowserHadNothingToComplainOf() {
    // it tells what was refused on purpose: signing in, settings, a database that does not answer
    assertThat(browser.complaints())
        .filteredOn(c -> !c.matches(".*status of (401|422|409|502) .*"))
        .isEmpty();
  }
}
