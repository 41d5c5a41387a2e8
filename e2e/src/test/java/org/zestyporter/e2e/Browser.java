package org.zestyporter.e2e;

import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import org.openqa.selenium.By;
import org.openqa.selenium.JavascriptExecutor;
import org.openqa.selenium.Keys;
import org.openqa.selenium.OutputType;
import org.openqa.selenium.StaleElementReferenceException;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.chrome.ChromeDriver;
import org.openqa.selenium.chrome.ChromeDriverService;
import org.openqa.selenium.chrome.ChromeOptions;
import org.openqa.selenium.interactions.Actions;
import org.openqa.selenium.support.ui.WebDriverWait;

/** A browser of 1280 × 800 that waits for what it is asked for. */
final class Browser implements AutoCloseable {
  private final ChromeDriver driver;
  private final WebDriverWait wait;

  Browser() throws IOException {
    Path profile = Files.createTempDirectory("chromium-profile");
    ChromeOptions options = new ChromeOptions();
    options.setBinary("/usr/bin/chromium");
    options.addArguments(
        "--headless=new",
        "--no-sandbox",
        "--disable-gpu",
        "--disable-quic",
        "--no-first-run",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
        "--force-prefers-reduced-motion",
        "--lang=en-GB",
        "--window-size=1280,900",
        "--user-data-dir=" + profile);
    ChromeDriverService service =
        new ChromeDriverService.Builder()
            .usingDriverExecutable(new File("/usr/bin/chromedriver"))
            .usingAnyFreePort()
            .build();
    driver = new ChromeDriver(service, options);
    size(1280, 800);
    wait = new WebDriverWait(driver, Duration.ofSeconds(20), Duration.ofMillis(100));
    wait.ignoring(StaleElementReferenceException.class);
  }

  /** Gives the page another size, in pixels of CSS. */
  void size(int width, int height) {
    driver.executeCdpCommand(
        "Emulation.setDeviceMetricsOverride",
        Map.of("width", width, "height", height, "deviceScaleFactor", 1, "mobile", false));
  }

  /** By how many pixels the page is wider than its window. */
  long wide() {
    return (Long)
        script(
            "return Math.max(document.documentElement.scrollWidth,"
                + " document.querySelector('main').scrollWidth) - window.innerWidth");
  }

  void go(String address) {
    driver.get(address);
  }

  String address() {
    return driver.getCurrentUrl();
  }

  WebElement find(String css) {
    return until(d -> d.findElements(By.cssSelector(css)).stream().findFirst().orElse(null));
  }

  List<WebElement> all(String css) {
    return driver.findElements(By.cssSelector(css));
  }

  /** The element of a kind whose text holds a text, once it is shown. */
  WebElement find(String css, String text) {
    return until(
        d ->
            d.findElements(By.cssSelector(css)).stream()
                .filter(e -> e.isDisplayed() && e.getText().contains(text))
                .findFirst()
                .orElse(null));
  }

  void click(String css, String text) {
    until(
        d -> {
          find(css, text).click();
          return true;
        });
  }

  <T> T until(Function<ChromeDriver, T> condition) {
    return wait.until(d -> condition.apply(driver));
  }

  /** Waits until the page shows a text. */
  void sees(String text) {
    new WebDriverWait(driver, Duration.ofSeconds(20), Duration.ofMillis(100))
        .ignoring(StaleElementReferenceException.class)
        .withMessage(() -> "“" + text + "” in:\n" + text("body"))
        .until(d -> text("body").contains(text));
  }

  String text(String css) {
    return driver.findElement(By.cssSelector(css)).getText();
  }

  void type(CharSequence... keys) {
    new Actions(driver).sendKeys(keys).perform();
  }

  /** Presses a key while Control is held. */
  void control(String key) {
    new Actions(driver).keyDown(Keys.CONTROL).sendKeys(key).keyUp(Keys.CONTROL).perform();
  }

  Object script(String script, Object... arguments) {
    return ((JavascriptExecutor) driver).executeScript(script, arguments);
  }

  void deleteCookie(String name) {
    driver.manage().deleteCookieNamed(name);
  }

  /** Takes a picture once fonts and answers have settled. */
  void picture(Path file) throws IOException {
    script("return document.fonts.ready");
    try {
      Thread.sleep(350);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
    Files.createDirectories(file.getParent());
    Files.write(file, driver.getScreenshotAs(OutputType.BYTES));
  }

  /** What keeps people with disabilities from using the page, after WCAG 2.2 A and AA. */
  @SuppressWarnings("unchecked")
  List<String> barriers() throws IOException {
    script(Files.readString(Path.of("..", "web", "node_modules", "axe-core", "axe.min.js")));
    Object found =
        driver.executeAsyncScript(
            "const done = arguments[arguments.length - 1];"
                + "axe.run({runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']})"
                + ".then(r => done(r.violations.flatMap(v => v.nodes.map(n =>"
                + " v.id + ': ' + n.target.join(' ') + ' ' + n.html.slice(0, 120)))))");
    return (List<String>) found;
  }

  /** What the page complained of on its console. */
  List<String> complaints() {
    return driver.manage().logs().get("browser").getAll().stream()
        .map(e -> e.getLevel() + " " + e.getMessage())
        .toList();
  }

  @Override
  public void close() {
    driver.quit();
  }
}
