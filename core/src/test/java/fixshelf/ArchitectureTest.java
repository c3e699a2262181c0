package fixshelf;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
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

    private static final JavaClasses CLASSES = new ClassFileImporter()
            .withImportOption(ImportOption.Predefined.DO_NOT_INCLUDE_TESTS)
            .importPackages("fixshelf");

    /// The rooms of a large package, likewise.
    private static final Map<String, List<String>> ROOMS = Map.of(
            "language", List.of("tree", "pattern", "catalogue", "emulation", "checking"),
            "render", List.of("frame", "pandas", "r", "sql"));

    private static final Set<String> APART = Set.of("sql", "pandas", "r");

    @Test
    void packagesKnowOnlyThoseBeforeThem() {
        inOrder("fixshelf.", ORDER);
        ROOMS.forEach((room, inner) -> inOrder("fixshelf." + room + ".", inner));
    }

    private void inOrder(String outer, List<String> order) {
        for (int i = 0; i + 1 < order.size(); i++) {
            knowsNone(
                    outer + order.get(i) + "..",
                    order.subList(i + 1, order.size()).stream().map(p -> outer + p + ".."));
        }
    }

    @Test
    void languagesOfDifferentKindsKnowNothingOfEachOther() {
        APART.forEach(room -> knowsNone(
                "fixshelf.render." + room,
                APART.stream().filter(r -> !r.equals(room)).map(r -> "fixshelf.render." + r)));
        knowsNone("fixshelf.render", Stream.of("fixshelf.render.*.."));
    }

    private void knowsNone(String room, Stream<String> others) {
        noClasses()
                .that()
                .resideInAPackage(room)
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage(others.toArray(String[]::new))
                .check(CLASSES);
    }

    @Test
    void thereAreNoCirclesAndNoInterfaceCode() {
        slices().matching("fixshelf.(*)..").should().beFreeOfCycles().check(CLASSES);
        slices().matching("fixshelf.(**)").should().beFreeOfCycles().check(CLASSES);
        noClasses()
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage("javafx..", "java.awt..", "javax.swing..")
                .check(CLASSES);
    }
}
