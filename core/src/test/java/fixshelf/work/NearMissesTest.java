package fixshelf.work;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// Keys without a match that are equal to one of the other table but for something small, and what that is.
class NearMissesTest {
    @TempDir
    Path root;

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            ignoreLeadingAndTrailingWhitespace = false,
            value = {
                "Oatherby |Oatherby|white space",
                "Oather\u00A0by|Oather by|white space",
                "Oatherby\u200B|Oatherby|white space",
                " OATHERBY|Oatherby|white space, capitals",
                "Öatherby|oatherby|capitals, accents",
                "o\u0308atherby|öatherby|accents",
                "Oather-by|oather by|white space, capitals, marks",
                "AQ-417|AQ-00417|leading zeros",
                "0417|417|leading zeros",
                "417|4170|",
                "Oatherby|Oatherly|one letter",
                "Thornmre|THORNMERE|one letter",
                "Thornmeere|Thornmere|one letter",
                "Thronmere|Thornmere|one letter",
                "Adler Quay|Alder Quay|one letter",
                "Ørne|Örne|one letter",
                "Thornmere|Thornnmer|two letters",
                "hornmere|Thornmee|two letters",
                "nmere|mnere|one letter",
                "oatherby|aotherby|one letter",
                "ab cd ef gh|ba cd ef hg|",
                "mere|emre|one letter",
                "mere|erem|",
                "abc|abd|",
                "AQ-417|AQ-418|",
                "M. Thistlewood|Maud Thistlewood|an initial",
                "maud  thistlewood|M Thistlewood|an initial",
                "Maud Thistlewood|Mary Thistlewood|two letters",
                "Bartholomew|Bartholamaw|two letters",
                "xyrtholomew|Bartholomew|two letters",
                "Kettleby|KETTLABI|two letters",
                "Kettles|Kattlas|",
                "xettlebx|Kettleby|",
                "Bartholomew|Bartxolamaw|",
                "M. Thistlewood|N. Thistlewood|one letter",
                "J. Fenn|Joss Appleyard|"
            })
    void sayWhereKeysDiffer(String here, String there, String why) throws Exception {
        Jobs.shelf(root, "k,n\n\"" + here + "\",1\n\"" + here + "\",2\n,3\nsame,4\n", "job: job\n");
        Files.writeString(root.resolve("data/list.csv"), "k,v\n\"" + there + "\",x\nsame,y\n");
        Files.writeString(root.resolve("datasets/list.yaml"), "dataset: list\nread: data/list.csv\n");
        Files.writeString(
                root.resolve("jobs/job.yaml"),
                "job: job\nlines:\n  - read: {file: data/in.csv}\n  - bring_in: [v]\n    from: list\n"
                        + "    matching: {k: k}\noutputs:\n  - write: out.csv\n");
        Shelf shelf = ShelfReader.read(root).get();
        PlannedJob planned =
                PlannedJob.plan(shelf, shelf.job("job").orElseThrow(), Map.of()).get();
        try (Preview preview = Preview.open(planned.source()).get()) {
            String seen = preview.rows(planned, planned.report(2, "near_misses").orElseThrow(), 0, 10).get().stream()
                    .map(r -> r.cells().get(2).value() + " " + r.cells().get(3).value())
                    .collect(Collectors.joining(";"));
            assertThat(planned.report(2, "near_misses")
                            .orElseThrow()
                            .relation()
                            .shape()
                            .names())
                    .containsExactly("k", "k_there", "differ_in", "rows");
            assertThat(seen).isEqualTo(why == null ? "" : why + " 2");
        }
    }

    /// What would mend them is tried: how many rows more match, and how many several; what makes more rows ambiguous
    /// than it mends is not offered.
    @Test
    void areMendedByLinesThatWereTried() throws Exception {
        Jobs.shelf(root, "k,n\nOatherby ,1\nOatherby ,2\nFENNICK,3\nsame,4\n", "job: job\n");
        Files.writeString(root.resolve("data/list.csv"), "k,v\nOatherby,x\nOatherby,y\nFennick,z\nsame,y\n");
        Files.writeString(root.resolve("datasets/list.yaml"), "dataset: list\nread: data/list.csv\n");
        for (String body : List.of("lower(trim(text))", "substr(text, 0, 0) || 'x'")) {
            String name = body.startsWith("lower") ? "folded" : "nothing_left";
            Files.writeString(
                    root.resolve("fixes/" + name + ".fix.md"),
                    "---\nfix: " + name
                            + "\nparameters:\n  text: {type: text}\nreturns: text\n---\n# X\n\n```sql\nRETURN " + body
                            + ";\n```\n");
        }
        Files.writeString(
                root.resolve("jobs/job.yaml"),
                "job: job\nlines:\n  - read: {file: data/in.csv}\n  - bring_in: [v]\n    from: list\n"
                        + "    matching: {k: k}\n    several: first\noutputs:\n  - write: out.csv\n");
        Shelf shelf = ShelfReader.read(root).get();
        assertThat(shelf.problems()).isEmpty();
        PlannedJob planned =
                PlannedJob.plan(shelf, shelf.job("job").orElseThrow(), Map.of()).get();
        try (Preview preview = Preview.open(planned.source()).get()) {
            preview.look(planned).get();
            assertThat(Mending.of(shelf, preview, planned, 2).get().stream()
                            .map(m -> m.line().call() + " " + m.sentence())
                            .toList())
                    .containsExactly(
                            "bring_in compare through folded: 3 rows more match, 2 more match several",
                            "by_mapping put a line before it that gives keys the names there: 3 rows more match, 2 more match several");
        }
    }
}
