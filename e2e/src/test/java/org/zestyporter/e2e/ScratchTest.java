package org.zestyporter.e2e;

import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.Keys;

class ScratchTest extends DemoVisit {
  static void shot(String n) throws Exception {
    Thread.sleep(700);
    browser.picture(Path.of("/tmp/shots/" + n + ".png"));
  }

  @Test
  void look() throws Exception {
    browser.go(demo.address());
    signIn(demo.password());
    plan(demo.files().resolve("winter-arrivals.xlsx"), "vessel");
    browser.sees("Fields of vessel");
    browser.click("button.f", "length_m");
    Thread.sleep(1500);
    shot("1-length");
    browser.type("a");
    Thread.sleep(1500);
    shot("2-menu");
    browser.type(Keys.ARROW_DOWN);
    shot("3-try");
    browser.type(Keys.ENTER);
    Thread.sleep(800);
    shot("4-kept");
    browser.click("button.f", "type_id");
    Thread.sleep(1500);
    shot("5-type");
    browser.click("button.fix", "Answer");
    Thread.sleep(700);
    shot("6-answer");
    browser.click("button", "Remember");
    Thread.sleep(1500);
    shot("7-answered");
    browser.click("button.f", "status");
    browser.click("button", "formula");
    Thread.sleep(1500);
    shot("8-formula");
    browser.click("a.place", "Phrasebooks");
    Thread.sleep(800);
    shot("9-books");
  }
}
