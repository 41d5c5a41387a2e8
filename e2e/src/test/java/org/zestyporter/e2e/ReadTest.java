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
import org.openqa.selenium.WebElement;
import org.openqa.selenium.support.ui.Select;
import org.zestyporter.demo.Marina;
import org.zestyporter.demo.OfficeFiles;
import org.zestyporter.demo.WinterStorage;

/** The Read stop, on files that are laid out in ever other ways. */
class ReadTest extends DemoVisit {

  private static void read(Path file, String table) {
    plan(file, table);
    browser.type("1");
    browser.sees("How it is read");
  }

  private static String status() {
    return browser.text(".pages");
  }

  @Test
  @Order(1)
  void monthsAcrossBecomeRows(@TempDir Path folder) throws IOException {
    OfficeFiles files = Marina.open().officeFiles();
    files.meters(folder.resolve("meters.xlsx"));
    browser.go(demo.address());
    signIn(demo.password());
    browser.sees("Nothing has been brought in yet");
    read(demo.files().resolve("meter-round-2026.xlsx"), "meter_reading");
    browser.sees("6 columns fold into rows");
    browser.sees("80 records become " + files.readings());
    assertThat(browser.text("tr.units")).contains("kWh");
    picture("read-fold");
    browser.click(".offer button", "Fill Pontoon down");
    browser.sees("Filled down");
    browser.click("button", "Keep the fold");
    browser.sees(files.readings() + " records, folded");
    browser.click(".offer button", "Pick Season");
    browser.find("td.picked", "Summer 2026");
    WebElement name = browser.find("input[aria-label='Name of the column for values']");
    name.sendKeys(Keys.CONTROL, "a");
    name.sendKeys("Reading" + Keys.ENTER);
    browser.find(".column .name", "Reading");
  }

  @Test
  @Order(2)
  void sheetsOfOneShapeAreReadAsOne() {
    long before = Long.parseLong(status().replaceAll("\\D.*", ""));
    browser.click(".sheet .add", "read too");
    browser.until(d -> !status().startsWith(before + " records"));
    browser.find(".column .name", "Sheet");
  }

  @Test
  @Order(3)
  void lineFarDownIsThereAtOnce(@TempDir Path folder) throws IOException {
    Path large = folder.resolve("many-arrivals.csv");
    Marina.open().arrivals().writeLargeText(large, 250_000);
    read(large, "vessel");
    WebElement line = browser.find("#line");
    line.sendKeys("225000" + Keys.ENTER);
    browser.find("tr.cur .ln", "225000");
    assertThat(browser.text("tr.cur")).contains("QL-224998");
    browser.click("button", "Last line");
    browser.find("tr.cur .ln", "250001");
    browser.find("td.role", "last record");
  }

  @Test
  @Order(4)
  void fileUnlikeTheLastOneSaysSoAndLosesNothing() throws IOException {
    plan(demo.files().resolve("winter-arrivals.csv"), "vessel");
    browser.click("a.place", "Desk");
    drop(demo.files().resolve("december-arrivals.csv"));
    browser.click(".proposal button", "Open");
    browser.sees("columns unlike last time");
    browser.sees("“Owner e-mail” is now “Owner mail”");
    browser.sees("fills owner_id");
    browser.sees("“Notes” is gone");
    picture("read-changes");
    browser.click("button", "Take the new names, keep the fills");
    browser.until(d -> !browser.text("aside").contains("unlike last time"));
    browser.type("2");
    browser.find("[data-field=owner_id]", "Owner e-mail");
    assertThat(browser.text("[data-field=owner_id]")).contains("finds email");
  }

  @Test
  @Order(5)
  void bordersOfFixedWidthAreProposedAndMoved(@TempDir Path folder) throws IOException {
    Path fixed = folder.resolve("lifting-list.txt");
    StringBuilder text = new StringBuilder("Reg     Boat            Lift on    Tonnes\n");
    for (int i = 0; i < 40; i++) {
      text.append(
          String.format(
              "QH-%04d %-15s %02d.11.2026 %6s%n",
              100 + i, i % 3 == 0 ? "Silver Wren" : "Grey Heron", 1 + i % 28, (50 + i) / 10.0));
    }
    Files.writeString(fixed, text);
    read(fixed, "vessel");
    browser.find(".edge");
    browser.find(".column .name", "Lift on");
    browser.find(".column .name", "Tonnes");
    browser.all(".edge").get(1).sendKeys(Keys.ARROW_LEFT);
    browser.sees("as you said");
  }

  @Test
  @Order(6)
  void listInsideOfObjectsMakesTheRows() throws IOException {
    OfficeFiles files = Marina.open().officeFiles();
    files.app(home.resolve("app.json"));
    read(demo.files().resolve("harbour-app.json"), "vessel");
    browser.sees("owner.email");
    browser.until(d -> status().startsWith(OfficeFiles.APP_VESSELS + " records"));
    browser.click(".sheet button", "vessels.stays");
    browser.until(d -> status().startsWith(files.stays() + " records"));
    browser.find(".column .name", "stays.berth");
  }

  @Test
  @Order(7)
  void titlesOfTwoLinesFoldIntoGroups() throws IOException {
    read(demo.files().resolve("tariffs-spring.ods"), "tariff");
    browser.sees("6 columns fold into rows");
    browser.sees("28 records become 84");
    browser.sees("lines 3 and 4");
  }

  @Test
  @Order(8)
  void whatCannotBeToldIsAskedOnce(@TempDir Path folder) throws IOException {
    Path file = folder.resolve("dates.csv");
    Files.write(
        file,
        "Reg;Insured;Code\nQH-1;03.04.27;1\nQH-2;05.06.27;2\nQH-3;07.08.2027;3\n"
            .getBytes(StandardCharsets.UTF_8));
    read(file, "vessel");
    browser.sees("2 to confirm");
    browser.click("button", "20..");
    browser.sees("1 to confirm");
    browser.click("button", "Day first");
    browser.until(d -> !browser.text("body").contains("to confirm"));
    browser.click("a.place", "Desk");
    browser.sees("Quick start");
  }

  @Test
  @Order(9)
  void pagesHaveNoBarriers() {
    assertThat(BARRIERS).isEmpty();
  }

  @Test
  @Order(10)
  void everySettingHasAName() {
    read(demo.files().resolve("contracts.tsv"), "berth_contract");
    browser.sees("2 lines repeat the titles");
    browser.sees("hardly filled");
    new Select(browser.find("select[aria-label=Delimiter]")).selectByVisibleText("comma");
    browser.sees("as you said");
    browser.click("button", "find it again");
    browser.sees("part into 7 cells");
  }

  /** A list in German, laid out to be printed, is brought in as it is dropped. */
  @Test
  @Order(11)
  void strangersWorkbookIsBroughtInAsItIs() throws IOException {
    browser.click("a.place", "Desk");
    browser.sees("Quick start");
    drop(demo.files().resolve("winterlager.xlsx"));
    browser.sees("8 of 10 columns find a field");
    browser.click(".found button", "Begin");
    browser.sees("Fields of vessel");
    browser.type("1");
    browser.find("td.role", "section");
    browser.sees("Read the table in line " + WinterStorage.PRICES_LINE);
    browser.until(d -> status().startsWith(WinterStorage.VESSELS + " records"));
    picture("read-sections");
    browser.type("2");
    browser.find("[data-field=length_m]", "Maße Lüa");
    browser.type("r");
    browser.sees("rehearsed, nothing written");
    browser.type("5");
    browser.click("button.main", "Add " + WinterStorage.ADDED);
    browser.sees("read back from the table");
  }

  @Test
  @Order(12)
  void narrowWindowsShowAllOfIt() throws IOException {
    browser.type("2");
    browser.sees("Fields of vessel");
    browser.size(1024, 700);
    checked("fill at 1024x700");
    String fill = browser.address();
    browser.click("a.place", "Desk");
    browser.sees("Recent runs");
    int plan = browser.find("table.g tbody td:nth-child(3)").getSize().getWidth();
    assertThat(plan).as("pixels for what the plan of a run is called").isGreaterThan(80);
    browser.go(fill);
    browser.sees("Fields of vessel");
    browser.size(640, 400);
    browser.find("[data-field=registration]");
    assertThat(browser.wide()).as("pixels beyond the window's edge").isZero();
    checked("fill at 640x400");
    browser.size(1280, 800);
  }
}
