package fixshelf;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import java.util.List;
import org.junit.jupiter.api.Test;

/// The packages of the core stand in the order in which a fix travels; each knows only those before it.
class ArchitectureTest {
    private static final List<String> ORDER = List.of(
            "problem",
            "type",
            "language",
            "table",
            "plan",
            "operations",
            "shelf",
            "render",
            "engine",
            "source",
            "fetch",
            "output",
            "check",
            "export",
            "work",
            "profile",
            "standin");

    private final JavaClasses classes = new ClassFileImporter()
            .withImportOption(ImportOption.Predefined.DO_NOT_INCLUDE_TESTS)
            .importPackages("fixshelf");

    @Test
    void packagesKnowOnlyThoseBeforeThem() {
        for (int i = 0; i < ORDER.size(); i++) {
            String[] later = ORDER.subList(i + 1, ORDER.size()).stream()
                    .map(p -> "fixshelf." + p + "..")
                    .toArray(String[]::new);
            if (later.length > 0) {
                noClasses()
                        .that()
                        .resideInAPackage("fixshelf." + ORDER.get(i) + "..")
                        .should()
                        .dependOnClassesThat()
                        .resideInAnyPackage(later)
                        .check(classes);
            }
        }
    }

    @Test
    void thereAreNoCirclesAndNoInterfaceCode() {
        slices().matching("fixshelf.(*)..").should().beFreeOfCycles().check(classes);
        noClasses()
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage("javafx..", "java.awt..", "javax.swing..")
                .check(classes);
    }
}
