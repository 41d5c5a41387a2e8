package org.zestyporter.server;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import org.junit.jupiter.api.Test;

/** The server is cut by feature; controllers translate and leave storage to services. */
class ArchitectureTest {
  private static final JavaClasses SERVER =
      new ClassFileImporter()
          .withImportOption(ImportOption.Predefined.DO_NOT_INCLUDE_TESTS)
          .importPackages("org.zestyporter.server");

  @Test
  void featuresDoNotDependOnEachOtherInCircles() {
    slices().matching("org.zestyporter.server.(*)..").should().beFreeOfCycles().check(SERVER);
  }

  @Test
  void controllersDoNotTouchStorage() {
    noClasses()
        .that()
        .haveSimpleNameEndingWith("Controller")
        .should()
        .dependOnClassesThat()
        .haveSimpleNameEndingWith("Mapper")
        .check(SERVER);
  }

  @Test
  void storageStaysInsideItsFeature() {
    classes().that().haveSimpleNameEndingWith("Mapper").should().bePackagePrivate().check(SERVER);
  }
}
