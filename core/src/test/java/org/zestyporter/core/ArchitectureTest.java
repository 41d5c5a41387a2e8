package org.zestyporter.core;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static org.assertj.core.api.Assertions.assertThat;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** A row travels one way through the packages, and so do the imports. */
class ArchitectureTest {
  private static final List<String> ORDER =
      List.of(
          "value",
          "formula",
          "source",
          "application",
          "step",
          "plan",
          "fill",
          "match",
          "run",
          "undo",
          "preview");
  private static final JavaClasses CORE =
      new ClassFileImporter()
          .withImportOption(ImportOption.Predefined.DO_NOT_INCLUDE_TESTS)
          .importPackages("org.zestyporter.core");

  private static String name(String part) {
    return "org.zestyporter.core." + part + "..";
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "value",
        "formula",
        "source",
        "application",
        "step",
        "plan",
        "fill",
        "match",
        "run",
        "undo"
      })
  void packagesImportOnlyThoseToTheirLeft(String part) {
    String[] right =
        ORDER.subList(ORDER.indexOf(part) + 1, ORDER.size()).stream()
            .map(ArchitectureTest::name)
            .toArray(String[]::new);
    noClasses()
        .that()
        .resideInAPackage(name(part))
        .should()
        .dependOnClassesThat()
        .resideInAnyPackage(right)
        .check(CORE);
  }

  /** Within the source: settings, parsers, the cache of cells, what of them is the table. */
  @ParameterizedTest
  @ValueSource(strings = {"reading", "parse", "cache", "layout"})
  void partsOfTheSourceImportOnlyThoseToTheirLeft(String part) {
    List<String> parts = List.of("reading", "parse", "cache", "layout");
    noClasses()
        .that()
        .resideInAPackage(name("source." + part))
        .should()
        .dependOnClassesThat()
        .resideInAnyPackage(
            parts.subList(parts.indexOf(part) + 1, parts.size()).stream()
                .map(p -> name("source." + p))
                .toArray(String[]::new))
        .orShould()
        .dependOnClassesThat()
        .resideInAPackage("org.zestyporter.core.source")
        .check(CORE);
  }

  @Test
  void parsersAndLayoutAreTheSourcesOwn() {
    noClasses()
        .that()
        .resideOutsideOfPackage(name("source"))
        .should()
        .dependOnClassesThat()
        .resideInAnyPackage(name("source.parse"), name("source.layout"))
        .check(CORE);
  }

  @Test
  void applicationsAndSourcesDoNotKnowEachOther() {
    noClasses()
        .that()
        .resideInAPackage(name("application"))
        .should()
        .dependOnClassesThat()
        .resideInAPackage(name("source"))
        .check(CORE);
  }

  @Test
  void draftsKnowNothingOfWhatIsDoneWithThem() {
    noClasses()
        .that()
        .resideInAPackage(name("draft"))
        .should()
        .dependOnClassesThat()
        .resideInAnyPackage(name("fill"), name("match"), name("run"), name("preview"))
        .check(CORE);
  }

  /** What is looked up is asked for as data; compiling and computing look nothing up. */
  @Test
  void fillAndMatchTouchNoApplicationNoSourceAndNoFile() {
    noClasses()
        .that()
        .resideInAnyPackage(name("fill"), name("match"))
        .should()
        .dependOnClassesThat()
        .resideInAnyPackage(name("application.jdbc"), "java.sql..", "java.io..", "java.nio.file..")
        .orShould()
        .dependOnClassesThat()
        .haveNameMatching(".*\\.(Application|Lookups|WriteSession|SourceTable|SourceCache)")
        .check(CORE);
    noClasses()
        .that()
        .resideOutsideOfPackage(name("application.jdbc"))
        .should()
        .dependOnClassesThat()
        .resideInAnyPackage(name("application.jdbc"), "java.sql..")
        .check(CORE);
  }

  @Test
  void computingKnowsNoConnectionAndNoFramework() {
    noClasses()
        .that()
        .resideInAnyPackage(name("value"), name("source"), name("plan"))
        .should()
        .dependOnClassesThat()
        .haveFullyQualifiedName("java.sql.Connection")
        .check(CORE);
    noClasses()
        .should()
        .dependOnClassesThat()
        .resideInAnyPackage("org.springframework..", "org.apache.ibatis..", "org.h2..")
        .check(CORE);
  }

  @Test
  void thereIsSomethingToCheck() {
    assertThat(CORE.size()).isGreaterThan(60);
  }
}
