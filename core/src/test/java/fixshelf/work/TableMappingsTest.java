package fixshelf.work;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// A mapping that two columns of a dataset give: one place where it is kept, and no guessing where it is not clear.
class TableMappingsTest {
    private static final String TABLE = """
            item,"item group",twice
            kettle,kitchen,x
            lamp,lamps,x
            kettle,kitchen,x
            ,nothing,x
            it's,tools,x
            saw,,x
            lamp,lamps,y
            """;

    @TempDir
    Path root;

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "MAP FROM groups(item, item group) ; kettle,kitchen,it's,tools,lamp,lamps,saw,∅,other,other",
                "map from GROUPS( ITEM , \"item group\" ) ; kettle,kitchen,it's,tools,lamp,lamps,saw,∅,other,other",
                "MAP['kettle', 'k'] ; kettle,k,it's,it's,lamp,lamp,saw,saw,other,other",
                "MAP FROM groups(\"item group\", item) ; kettle,kettle,it's,it's,lamp,lamp,saw,saw,other,other"
            })
    void givesWhatTheTableSays(String mapping, String expected) throws IOException {
        Shelf shelf = shelf(mapping, TABLE);
        assertThat(Jobs.run(shelf).problems()).isEmpty();
        assertThat(root.resolve("out/out.csv")).content().isEqualTo(csv(expected));
    }

    /// The operation says of values on no list what becomes of them; one beside which the table says nothing is on it.
    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "others: stay ; kitchen,tools,lamps,∅,other",
                "others: become_missing ; kitchen,tools,lamps,∅,∅",
                "others: become@otherwise: no group ; kitchen,tools,lamps,∅,no group",
                "others: become ; What do the others become?",
                "otherwise: x ; Others become nothing else here.",
                "others: stop ; 1 row breaks line 2: other, other."
            })
    void saysWhatBecomesOfOthers(String others, String expected) throws IOException {
        shelf("MAP['a', 'b']", TABLE);
        Files.writeString(
                root.resolve("jobs/job.yaml"),
                "job: job\nlines:\n  - read: {file: data/in.csv}\n  - by_mapping: [item]\n"
                        + "    pairs: {in: groups, from: item, to: item group}\n    "
                        + others.strip().replace("@", "\n    ") + "\noutputs:\n  - write: out/others.csv\n");
        Outcome<JobRun.Report> run =
                Jobs.run(fixshelf.shelf.ShelfReader.read(root).get());
        String given = run.isPresent()
                ? Files.readAllLines(root.resolve("out/others.csv")).stream()
                        .skip(1)
                        .map(l -> l.substring(l.indexOf(',') + 1))
                        .map(l -> l.isEmpty() ? "∅" : l)
                        .collect(java.util.stream.Collectors.joining(","))
                : run.problems().getFirst().what();
        assertThat(given).isEqualTo(expected);
    }

    /// Pairs of what stood there and what stands there now.
    private static String csv(String pairs) {
        StringBuilder out = new StringBuilder("was,item\n");
        String[] cells = pairs.split(",");
        for (int i = 0; i < cells.length; i += 2) {
            out.append(cells[i])
                    .append(',')
                    .append(cells[i + 1].replace("∅", ""))
                    .append('\n');
        }
        return out.toString();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "MAP FROM groups(item, twice) ; In groups these have more than one twice: 'lamp'. ; Mend the table",
                "MAP FROM grups(item, twice) ; There is no dataset grups on this shelf. ; Name another",
                "MAP FROM groups(itm, twice) ; There is no column itm in groups.csv. ; Nearest: item",
                "MAP FROM groups(item, grp) ; There is no column grp in groups.csv. ; Columns: item, item group, twice",
                "MAP FROM groups(item) ; mapping: ; ",
            })
    void whatIsNotClearIsAProblem(String mapping, String what, String todo) throws IOException {
        Outcome<JobRun.Report> report = Jobs.run(shelf(mapping, TABLE));
        assertThat(report.isPresent()).isFalse();
        Problem first = report.problems().getFirst();
        assertThat(first.what()).contains(what.strip());
        assertThat(first.todo()).contains(todo == null ? "" : todo);
    }

    @Test
    void anEmptyTableAndOneThatIsTooLargeAreProblems() throws IOException {
        Outcome<JobRun.Report> empty = Jobs.run(shelf("MAP FROM groups(item, item group)", "item,item group\n"));
        assertThat(empty.problems().getFirst().what()).contains("gives 0 pairs");
        StringBuilder many = new StringBuilder("item,item group\n");
        for (int i = 0; i <= JobSources.MOST_PAIRS; i++) {
            many.append(i).append(",x\n");
        }
        Outcome<JobRun.Report> large = Jobs.run(shelf("MAP FROM groups(item, item group)", many.toString()));
        assertThat(large.problems().getFirst().what()).contains("gives 10,001 pairs", "1 to 10,000");
    }

    @Test
    void aDraftKeepsItsOtherLines() throws IOException {
        Shelf shelf = shelf("MAP FROM groups(item, twice)", TABLE);
        Outcome<PlannedJob> draft = PlannedJob.draft(shelf, shelf.job("job").orElseThrow(), Map.of());
        assertThat(draft.isPresent()).isTrue();
        assertThat(draft.get().plan().steps()).hasSize(2);
        assertThat(draft.problems())
                .extracting(Problem::what)
                .singleElement()
                .asString()
                .startsWith("mapping: In groups");
    }

    private Shelf shelf(String mapping, String table) throws IOException {
        Jobs.shelf(root, "was,item\nkettle,kettle\nit's,it's\nlamp,lamp\nsaw,saw\nother,other\n", """
                job: job
                lines:
                  - read: data/in.csv
                  - fix: mapped
                    columns: [item]
                    with: {mapping: '%s'}
                outputs:
                  - write: out/out.csv
                    replace: true
                """.formatted(
                        mapping.strip().replace("'", "''")));
        Files.writeString(root.resolve("data/groups.csv"), table);
        Files.createDirectories(root.resolve("datasets"));
        Files.writeString(root.resolve("datasets/groups.yaml"), "dataset: groups\nread: data/groups.csv\n");
        Files.writeString(root.resolve("fixes/mapped.fix.md"), """
                ---
                fix: mapped
                parameters:
                  text: {type: text}
                  mapping: {type: mapping of text to text}
                returns: text
                ---
                # Mapped

                ```sql
                RETURN lookup(text, mapping, text);
                ```
                """);
        return ShelfReader.read(root).get();
    }
}
