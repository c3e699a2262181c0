package fixshelf.desktop;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/// The rooms of the window: places know their parts and the workbench, never the window; the workbench knows no nodes.
class RoomsTest {
    private static final List<String> ORDER = List.of("workbench", "parts", "data", "jobs", "shelf", "languages");

    private static final JavaClasses CLASSES = new ClassFileImporter()
            .withImportOption(ImportOption.Predefined.DO_NOT_INCLUDE_TESTS)
            .importPackages("fixshelf.desktop");

    @Test
    void roomsKnowOnlyThoseBeforeThem() {
        for (int i = 0; i < ORDER.size(); i++) {
            List<String> later = ORDER.subList(i + 1, ORDER.size());
            noClasses()
                    .that()
                    .resideInAPackage("fixshelf.desktop." + ORDER.get(i))
                    .should()
                    .dependOnClassesThat()
                    .resideInAnyPackage(Stream.concat(
                                    Stream.of("fixshelf.desktop"),
                                    later.stream().map(p -> "fixshelf.desktop." + p))
                            .toArray(String[]::new))
                    .check(CLASSES);
        }
        slices().matching("fixshelf.desktop.(*)").should().beFreeOfCycles().check(CLASSES);
    }

    @Test
    void theWorkbenchKnowsNoNodes() {
        noClasses()
                .that()
                .resideInAPackage("fixshelf.desktop.workbench")
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage("javafx.scene..", "javafx.stage..")
                .check(CLASSES);
    }
}
