package fixshelf.shelf;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// Another name on all pages that name a thing, and nowhere else.
class RenamesTest {
    private static final String FIX =
            "---\nfix: %s\nparameters:\n  text: {type: text, about: \"A text.\"}\nreturns: text\n%s---\n# F\n\n```sql\nRETURN %s;\n```\n";

    @TempDir
    Path folder;

    @BeforeEach
    void shelf() throws Exception {
        write("shelf.yaml", "shelf: s\n");
        write("data/d.csv", "a,b\n1,2\n");
        write("fixes/tidy.fix.md", FIX.formatted("tidy", "", "trim(text)"));
        write(
                "fixes/back.fix.md",
                FIX.formatted("back", "promises: [\"undone_by tidy\", \"one_of 'tidy', 'b'\"]\n", "text"));
        write(
                "fixes/other.fix.md",
                FIX.formatted("other", "", "TIDY(tidy (text)) || 'tidy(x)' || untidy(text) || tidy_too(text)"));
        write("fixes/untidy.fix.md", FIX.formatted("untidy", "", "text"));
        write("fixes/tidy_too.fix.md", FIX.formatted("tidy_too", "", "text"));
        write(
                "fixes/both.fix.md",
                "---\nfix: both\nkind: table\n---\n# Both\n\n```yaml\n- tidy: [a]   # tidy(a)\n- keep_rows: tidy(a) <> 'tidy'\n```\n");
        write(
                "fixes/load.fix.md",
                "---\nfix: load\nkind: loader\nparameters:\n  name: {type: text, about: \"A name.\"}\n---\n# Load\n\n```yaml\n- read: {file: \"data/{name}.csv\"}\n```\n");
        write("datasets/d.yaml", "# ours\ndataset: d\nread: data/d.csv\n");
        write("datasets/e.yaml", "dataset: e\nload: load\nwith: {name: d}\n");
        write("jobs/j.yaml", """
                job: j
                lines:
                  # tidy first
                  - read: d
                  - {fix: tidy, columns: [a]}   # of all
                  - tidy: [b]
                    reason: tidy the second
                  - add:
                      c: "tidy(a) || 'tidy'"
                  - bring_in: [b]
                    from: d
                    matching: {a: a}
                    compare: tidy
                    name: tidied
                  - both: {}
                """);
        write("jobs/k.yaml", "job: k\nlines:\n  - read: j\n  - keep_rows: a <> 'd'\n");
        write("jobs/l.yaml", "job: l\nlines:\n  - read: e\n    name: d\n  - go_on_from: d\n");
    }

    private void write(String name, String text) throws Exception {
        Files.createDirectories(folder.resolve(name).getParent());
        Files.writeString(folder.resolve(name), text);
    }

    private Shelf read() {
        return ShelfReader.read(folder).get();
    }

    private Map<String, String> rename(Renames.Kind kind, String old, String now) {
        Shelf shelf = read();
        assertThat(shelf.problems().stream().filter(p -> p.isError())).isEmpty();
        Outcome<Map<Path, String>> texts = Renames.of(shelf, kind, old, now);
        assertThat(texts.problems()).isEmpty();
        assertThat(PageFiles.write(texts.get()).isPresent()).isTrue();
        Shelf changed = read();
        assertThat(changed.problems().stream().filter(p -> p.isError())).isEmpty();
        assertThat(changed.usersOf(old)).isEmpty();
        assertThat(changed.usersOf(now)).containsExactlyInAnyOrderElementsOf(shelf.usersOf(old));
        Map<String, String> named = new TreeMap<>();
        texts.get().forEach((f, t) -> named.put(folder.relativize(f).toString(), t));
        return named;
    }

    @Test
    void aFixIsRenamedWhereItIsCalledAndNowhereElse() {
        Map<String, String> pages = rename(Renames.Kind.FIX, "tidy", "neat");
        assertThat(pages.keySet())
                .containsExactlyInAnyOrder(
                        "fixes/back.fix.md",
                        "fixes/other.fix.md",
                        "fixes/both.fix.md",
                        "fixes/tidy.fix.md",
                        "jobs/j.yaml");
        assertThat(pages.get("fixes/other.fix.md"))
                .contains("RETURN neat(neat (text)) || 'tidy(x)' || untidy(text) || tidy_too(text);");
        assertThat(pages.get("fixes/back.fix.md")).contains("promises: [\"undone_by neat\", \"one_of 'tidy', 'b'\"]");
        assertThat(pages.get("fixes/tidy.fix.md")).contains("fix: neat\n").contains("RETURN trim(text)");
        assertThat(pages.get("fixes/both.fix.md")).contains("neat: [a]", "neat(a) <> 'tidy'", "# tidy(a)");
        assertThat(pages.get("jobs/j.yaml"))
                .contains(
                        "# tidy first", "reason: tidy the second", "neat(a) || 'tidy'", "compare: neat", "name: tidied")
                .doesNotContain("fix: tidy");
    }

    @Test
    void tablesAreRenamedWhereTheyAreReadButNotALineOfThatName() {
        Map<String, String> pages = rename(Renames.Kind.DATASET, "d", "rooms");
        assertThat(pages.keySet()).containsExactly("datasets/d.yaml", "jobs/j.yaml");
        assertThat(pages.get("datasets/d.yaml")).isEqualTo("# ours\ndataset: rooms\nread: data/d.csv\n");
        assertThat(pages.get("jobs/j.yaml")).contains("- read: rooms", "from: rooms");
        assertThat(rename(Renames.Kind.JOB, "j", "jj")).containsOnlyKeys("jobs/j.yaml", "jobs/k.yaml");
        assertThat(rename(Renames.Kind.FIX, "load", "fetch")).containsOnlyKeys("datasets/e.yaml", "fixes/load.fix.md");
        assertThat(rename(Renames.Kind.FIX, "both", "lines_of")).containsOnlyKeys("fixes/both.fix.md", "jobs/j.yaml");
    }

    @ParameterizedTest
    @CsvSource({
        "FIX, tidy, untidy, DUPLICATE_NAME",
        "FIX, tidy, UNTIDY, DUPLICATE_NAME",
        "FIX, tidy, both, DUPLICATE_NAME",
        "FIX, tidy, trim, DUPLICATE_NAME",
        "FIX, both, keep_rows, DUPLICATE_NAME",
        "DATASET, d, e, DUPLICATE_NAME",
        "DATASET, d, j, DUPLICATE_NAME",
        "JOB, j, d, DUPLICATE_NAME",
        "FIX, tidy, two words, BAD_FIELD",
        "FIX, tidy, select, SYNTAX"
    })
    void aNameThatIsTakenOrNoneIsRefused(Renames.Kind kind, String old, String now, Code code) {
        assertThat(Renames.of(read(), kind, old, now).problems())
                .extracting(p -> p.code())
                .containsExactly(code);
    }
}
