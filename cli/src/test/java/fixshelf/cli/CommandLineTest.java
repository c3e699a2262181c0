package fixshelf.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;

import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.ObjectMapper;
import fixshelf.demo.DemoShelf;
import fixshelf.demo.PricePages;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import picocli.CommandLine;

/// The commands, what they print and their exit codes.
class CommandLineTest {
    @TempDir
    static Path folder;

    static Path demo;

    record Result(int code, String out, String err) {}

    @BeforeAll
    static void make() throws Exception {
        demo = DemoShelf.create(folder.resolve("demo"), 600);
        Files.writeString(demo.resolve("jobs/loses.yaml"), """
                job: loses
                lines:
                  - dataset: visits_alder_quay
                  - fix: amount
                    columns: [weight_kg]
                """);
        Files.writeString(
                demo.resolve("typed.csv"), "at,n\n2026-02-07 10:12:00,0.00000001\n2026-02-07 10:12:00.50,-2\n");
        Files.writeString(demo.resolve("jobs/typed.yaml"), """
                job: typed
                lines:
                  - read: {file: typed.csv}
                  - read_as: {at: timestamp, n: "decimal(18,8)"}
                """);
    }

    record Case(String arguments, int code, String prints) {}

    static Stream<Case> commands() {
        return Stream.of(
                new Case("--help", 0, "Exit codes:"),
                new Case("generate-completion", 0, "complete"),
                new Case("look visits_alder_quay", 0, "without_unit (all)"),
                new Case("look visits_alder_quay --no-remedies --json", 0, "\"kind\" : \"edge_spaces\""),
                new Case("look visits_alder_quay --no-remedies --first 50", 0, "the first 50 rows, 12 columns"),
                new Case("look visits_alder_quay --since", 0, "The same as when it was looked at"),
                new Case("look visits_alder_quay --since --first 50", 2, "--since is about all rows"),
                new Case("preview typed", 0, "1    2026-02-07 10:12:00                       0.00000001"),
                new Case("preview typed --json", 0, "\"at\" : \"2026-02-07 10:12:00.5\""),
                new Case("preview typed --view changed", 0, "-2 ⇒ -2.00000000"),
                new Case("where typed --row 1 --cell n", 0, "0.00000001"),
                new Case("look nobody", 1, "There is no dataset nobody"),
                new Case("look no/such.csv", 1, "There is no file such.csv"),
                new Case("look visits_alder_quay --counts outcome", 0, "outcome adds up to"),
                new Case("look menders --counts home_room,since --cells count", 0, "since by home_room"),
                new Case("look visits_alder_quay --counts outcom", 2, "Nearest: outcome"),
                new Case("look visits_alder_quay --counts outcome --decimals 9", 2, "--decimals goes from 0 to 6"),
                new Case("look visits_alder_quay --counts outcome --cells most", 2, "count, percent"),
                new Case("look item_groups --counts item --labels item=item_groups(item,item_group)", 0, "kitchen"),
                new Case(
                        "look item_groups --counts item --labels item=item_groups(item,group)",
                        2,
                        "Nearest: item_group"),
                new Case("look visits_alder_quay --compare visits_thornmere", 0, "written otherwise"),
                new Case("look visits_alder_quay --compare visits_alder_quay --by visit_no", 1, "No cell differs."),
                new Case("look item_groups --compare item_groups --by item --json", 0, "\"both\" : 11"),
                new Case("look item_groups --compare menders --by item", 1, "menders.csv has no column item"),
                new Case(
                        "look visits_alder_quay --drawing target/cost.svg --column parts_cost --replace",
                        0,
                        "cost.svg"),
                new Case("look visits_alder_quay --drawing target/cost.svg", 2, "--column"),
                new Case("list", 0, "squeeze_spaces"),
                new Case("take", 0, "squeeze_spaces"),
                new Case("take --json", 0, "\"group\" : \"text\""),
                new Case(
                        "take amount plain_number",
                        0,
                        "On the shelf already, and left as they are: amount, plain_number."),
                new Case("take squeeze_space", 1, "There is no ready-made fix squeeze_space."),
                new Case("list spaces --tag text", 0, "squeeze_spaces"),
                new Case("list nothing_like_it", 0, "Nothing on the shelf is like that."),
                new Case("list --folder fixes/dates", 0, "iso_date"),
                new Case("show squeeze_spaces", 0, "reads: squeeze the spaces in {text}"),
                new Case("where-used plain_number", 0, "amount"),
                new Case("where-used visits_alder_quay", 0, "visits_clean"),
                new Case("where-used nobody", 2, "There is no fix, dataset or job nobody"),
                new Case("where-used menders", 0, "visits_with_rooms"),
                new Case("where-used hours_by_month", 0, "bench_board"),
                new Case("where visits_clean --row 4 --cell parts_cost", 0, "visits-alder-quay.csv, row 4, field 8"),
                new Case("where visits_clean --cell parts_cost", 2, "--cell needs --row N."),
                new Case("where visits_clean --row 4 --cell parts", 1, "There is no column parts at line 8."),
                new Case("check --data", 0, "● hours_by_month, line 4"),
                new Case("ledger bench_board", 0, "rows beside, in a branch that ends at line 2"),
                new Case("operations duplicates", 0, "drop_repeats"),
                new Case("operations bring_in", 0, "without_match: the rows without a match"),
                new Case("operations nothing_like_it", 1, "No operation is about nothing_like_it"),
                new Case("operations working days", 1, "fixshelf functions working days"),
                new Case("operations remove empty --json", 0, "\"name\" : \"leave_out_blank_rows\""),
                new Case("functions remove_prefix --json", 0, "\"call\" : \"remove_prefix('ABBA', 'AB')\""),
                new Case("functions nothing_like_it", 1, "No function is about nothing_like_it"),
                new Case("ledger hours_by_month", 0, "16  rows come out, which adds up"),
                new Case("where hours_by_month --row 1", 0, "it becomes rows 1, 2, 3"),
                new Case("where hours_by_month", 2, "Give --key TEXT or --row N"),
                new Case("preview hours_by_month --line 2 --view vanished", 0, "Sunniva Grail"),
                new Case("test labels_from_below", 0, "2 of 2 cases of table fixes hold"),
                new Case("try amount 12,5", 0, "NULL"),
                new Case("try amount £1,204.50 --in duckdb,sqlite", 1, "DuckDB: 1204.50"),
                new Case("try plain_number 1.204 mark=. --steps", 0, "marked = '1,204'"),
                new Case("try menders_of room=Thornmere", 0, "Piers Wadlow"),
                new Case("try menders_of Thornmere menders-last-year --json", 0, "\"rows\" : 4"),
                new Case("try menders_of", 1, "menders_of needs room."),
                new Case("try menders_of a b c", 2, "has no place for c"),
                new Case(
                        "look menders_of_thornmere",
                        0,
                        "Given by menders_of (room Thornmere, list menders-last-year): 4 of 10 rows come out."),
                new Case("where-used menders_of", 0, "menders_of_thornmere"),
                new Case("where-used price_days", 0, "prices_asked"),
                new Case("test menders_of", 0, "2 of 2 cases of table fixes hold"),
                new Case("look price_days --counts part --keep", 0, "Kept in datasets/price_days.yaml."),
                new Case("look price_days --counts part --keep --first 2", 2, "--keep is about all rows"),
                new Case("look price_days", 0, "all 5 rows"),
                new Case("check --data", 0, "● price_days, counts that its page keeps: holds"),
                new Case("try squeeze_spaces", 2, "squeeze_spaces needs text"),
                new Case("try squeeze_spaces a b c", 2, "has no place for c"),
                new Case("try due_day soon", 2, "day is date"),
                new Case("test --in sqlite amount", 0, "cannot be said"),
                new Case("test --in sqlite amount --strict", 1, "cannot be said"),
                new Case("test --in duckdb squeeze_spaces --alone", 0, "5 of 5 cases hold"),
                new Case("check --environment prod", 0, "not looked at: visits_clean reads /srv/mending/data"),
                new Case("check --environment prd", 2, "Nearest: prod"),
                new Case("run visits_clean --set zone=1", 1, "Nothing in this job is called {zone}"),
                new Case("allow", 0, ""),
                new Case("allow target/no-such-folder", 2, "There is no folder"),
                new Case("list --json", 0, "\"signature\" : \"squeeze_spaces(text, keep_ends = FALSE) → text\""),
                new Case("check", 0, "131 pages, no problem."),
                new Case("test squeeze_spaces iso_date --alone", 0, "13 of 13 cases hold"),
                new Case("test squeeze_spaces", 0, "4 of 4 cases of table fixes hold"),
                new Case("test SQUEEZE_SPACES", 0, "4 of 4 cases of table fixes hold"),
                new Case("test --json amount", 0, "\"hold\" : 10"),
                new Case(
                        "show squeeze_spaces --in postgresql",
                        0,
                        "CREATE OR REPLACE FUNCTION squeeze_spaces(text text, keep_ends boolean DEFAULT FALSE)"),
                new Case(
                        "show squeeze_spaces --in duckdb --expression",
                        0,
                        "trim(regexp_replace(text, ' +', ' ', 'g'), ' ')"),
                new Case("show initials --in pandas", 0, "def initials(name: pd.Series) -> pd.Series:"),
                new Case("show visits_clean --in r", 0, "visits_clean <- function(df) {"),
                new Case("show visits_clean --in sqlite", 1, "Line 5, Read weight_kg, parts_cost as an amount: SQLite"),
                new Case("show visits_clean --in oracle --json", 1, "\"what\" : \"Line 3,"),
                new Case("show squeeze_spaces --in tsql", 0, "CREATE OR ALTER FUNCTION dbo.squeeze_spaces(@text"),
                new Case("preview visits_clean --line 2 --rows 3 --view changed", 0, "⇒"),
                new Case("preview visits_clean --json --rows 1", 0, "\"cells_changed\""),
                new Case("preview loses --rows 1", 0, "line 2 loses '?' in weight_kg, "),
                new Case("preview loses --line 2 --json --rows 1", 0, "\"column\" : \"weight_kg\""),
                // A table fix needs a table: that of its first case, or one of the shelf.
                new Case("show newest_of_each --in pandas", 0, "df = first_of(df, [\"no\"], [(\"at\", True)], False)"),
                new Case(
                        "show newest_of_each --in sqlite --on visits_alder_quay --with keys:␣[visit_no],␣moment:␣recorded_at",
                        0,
                        "PARTITION BY visit_no"),
                new Case("show newest_of_each --in r --on visits_alder_quay", 1, "newest_of_each needs keys."),
                new Case("show newest_of_each --in r --on nowhere", 1, "There is no dataset or job nowhere"),
                new Case("show squeeze_spaces --in r --on visits_alder_quay", 2, "Only a table fix is shown --on"),
                new Case("show kilograms --in postgresql", 0, "measure double precision"),
                new Case("show day_for_guests --in pandas", 1, "a layout or a separator comes through a parameter"),
                new Case("run visits_clean --set out=here", 0, "visits_clean.parquet"),
                new Case("run thornmere_report --json", 0, "\"files\""),
                new Case("", 2, "Which command?"),
                new Case("tst", 2, "fixshelf test"),
                new Case("show squeeze_space --in duckdb", 2, "Nearest: squeeze_spaces"),
                new Case("show squeeze_spaces --in cobol", 2, "duckdb, postgresql, mariadb, sqlite, spark, pandas, r"),
                new Case("engines", 0, "SQLite"),
                new Case("engines --json", 0, "\"id\" : \"spark\""),
                new Case(
                        "parity squeeze_spaces amount --in sqlite --values 60",
                        0,
                        "1 same, 0 differ, 1 cannot be said"),
                new Case("parity squeeze_spaces --in sqlite --values 60 --json", 0, "\"outcome\" : \"same\""),
                new Case(
                        "parity visits_clean --in sqlite,duckdb",
                        0,
                        "jobs: 1 same, 0 differ, 1 cannot be said, 0 not run"),
                new Case("parity thornmere_report --in duckdb --json", 0, "\"outcome\" : \"same\""),
                new Case("parity amount --in oracle", 0, "0 same, 0 differ"),
                new Case("parity squeeze_space", 2, "Nearest: squeeze_spaces"),
                new Case(
                        "export --in sqlite --to target/as-sqlite --tests", 0, "left out amount: SQLite cannot say it"),
                new Case(
                        "export --in duckdb --to target/as-duckdb --replace", 0, "as-duckdb/jobs/thornmere_report.sql"),
                new Case("test known_outcome seconds_of_moment", 0, "Promises: 5 of 5 hold"),
                new Case("help run", 0, "Usage: fixshelf run"),
                new Case("show squeeze_spaces --in duckdb", 0, "OR contains(text, '  ') THEN trim("),
                new Case("show visits_clean --in tsql --json", 1, "\"what\""),
                new Case("list --json", 0, "\"fixes\""),
                new Case("check --json", 0, "\"problems\""),
                new Case("test squeeze_spaces --in sqlite --alone", 0, "5 of 5 cases hold"),
                new Case("test squeeze_spaces --in oracle", 0, "Oracle SQL: not run"),
                new Case("test squeeze_space", 2, "Nearest: squeeze_spaces"),
                new Case("preview visits_clean --rows 0", 0, "as of line 8, based on all 600 rows"),
                new Case("preview visits_clean --rows -1", 2, "--rows"),
                new Case("preview visits_clean --rows many", 2, "--rows"),
                new Case("preview visits_clean --view gone", 2, "all, changed, leaving, added, lost"),
                new Case("preview visits_clean --view leaving --line 8 --rows 3", 0, " leaves"),
                new Case("preview visits_clean --set outt=x", 1, "Nearest: out"),
                new Case("run visits_clean --set out", 2, "--set"),
                new Case("parity squeeze_spaces --values -1", 2, "--values"),
                new Case("parity squeeze_spaces --in cobol", 2, "duckdb, postgresql"),
                new Case("parity squeeze_spaces --in sqlite --values 60 --to target/p.md", 0, "1 same"),
                new Case("export --in cobol --to target/x", 2, "duckdb, postgresql"),
                new Case("export --in duckdb", 2, "--to"),
                new Case("engines extra", 2, "extra"),
                new Case("run nothing", 2, "There is no job nothing"),
                new Case("preview visits_clean --line 99", 2, "there is no line 99"),
                new Case("look part_prices", 1, "fixshelf allow --read 127.0.0.1:4880"),
                new Case("look part_prices --allow 127.0.0.1:1", 1, "E512"),
                new Case("look quarterly_report --no-remedies", 0, "Read from pages 1 to 2."),
                new Case("look tool_loans --no-remedies --json", 0, "\"lent_to\""),
                new Case("try month_end 2024-02-05", 0, "DATE '2024-02-29'"),
                new Case("look visits_alder_quay --compare visits_clean --by visit_no", 1, "mender: "),
                new Case("look menders --compare menders_last_year --by-place", 1, "rows in both"),
                new Case("look menders --compare menders --by-place --by mender", 2, "--by-place"),
                new Case("stand-in visits_alder_quay", 0, "could stay"),
                new Case("stand-in menders --json", 0, "\"words\""),
                new Case(
                        "stand-in visits_alder_quay --to target/sent --keep-all --replace",
                        0,
                        "visits_clean: all 8 lines"),
                new Case("stand-in menders --to target/sent --keep nobody --replace", 1, "“nobody” is not shared"),
                new Case("stand-in mender", 2, "Nearest: menders"),
                new Case("stand-in", 2, "DATASET"),
                new Case("delete visits_clean", 1, "Rows are deleted from a table of a database"),
                new Case("delete nothing", 2, "There is no job nothing"),
                new Case("run visits_clean --set data=/nowhere", 1, "E301"));
    }

    @ParameterizedTest
    @MethodSource("commands")
    void doesWhatItSays(Case c) {
        boolean needsShelf = !c.arguments().isEmpty()
                && !c.arguments().startsWith("-")
                && !c.arguments().startsWith("gen")
                && !c.arguments().startsWith("engines")
                && !c.arguments().startsWith("help")
                && !c.arguments().startsWith("allow")
                && !c.arguments().equals("tst");
        String[] arguments =
                (c.arguments() + (needsShelf ? " --shelf " + demo : "")).strip().split(" +");
        // Blanks inside of an argument.
        Arrays.setAll(arguments, i -> arguments[i].replace('␣', ' '));
        Result result = c.arguments().isEmpty() ? run() : run(arguments);
        assertThat(result.code()).as(result.out() + result.err()).isEqualTo(c.code());
        assertThat(result.out() + result.err()).contains(c.prints());
        if (c.arguments().contains("--json")) {
            assertThatCode(() -> new ObjectMapper()
                            .enable(DeserializationFeature.FAIL_ON_TRAILING_TOKENS)
                            .readTree(result.out()))
                    .as("one document, and nothing beside it")
                    .doesNotThrowAnyException();
        }
        // What is wrong goes beside the output, so that a pipe does not take it for data.
        if (c.code() == 2) {
            assertThat(result.out()).isEmpty();
            assertThat(result.err()).isNotBlank();
        }
    }

    /// A page of the web is read by its address alone, and kept as a dataset that a job can read.
    @Test
    void aPageOfTheWebIsLookedAtAndKept() throws Exception {
        Path shelf = folder.resolve("web");
        run("init", shelf.toString());
        try (PricePages pages = PricePages.serve(0)) {
            String page = pages.address() + "/AQ-104/2026/03/02";
            assertThat(run("read", page, "--shelf", shelf.toString()).err())
                    .contains("There are 2 tables on the page, and none of them is named.")
                    .contains("2 (Price of AQ-104 on 2026-03-02; from pieces | price each | delivery; 5 rows)");
            assertThat(run("read", page, "--parts", "--shelf", shelf.toString()).out())
                    .contains("table 2, Price of AQ-104 on 2026-03-02: 4 rows of 3 columns")
                    .contains("kind: web\ntable: \"2\"");
            Result read = run(
                    "read", page, "--field", "table=2", "--keep", "prices", "--rows", "1", "--shelf", shelf.toString());
            assertThat(read.code()).as(read.err()).isZero();
            assertThat(read.out())
                    .contains("dataset: prices\nread: \"" + page + "\"\nkind: web\ntable: \"2\"\n")
                    .contains("1            £ 9.58      in stock")
                    .contains("This shelf may read from 127.0.0.1:");
            assertThat(run("look", "prices", "--shelf", shelf.toString()).out()).contains("all 4 rows, 3 columns");
        }
    }

    @Test
    void aPathIsShownWithTheValueOfThisTime() throws Exception {
        Path shelf = DemoShelf.create(folder.resolve("paths"), 60);
        Files.writeString(
                shelf.resolve("jobs/one_file.yaml"),
                "job: one_file\nlines:\n  - read: \"{in}\"\n    separator: \";\"\noutputs:\n  - write: \"{to}.csv\"\n");
        String in = shelf.resolve("data/visits-alder-quay.csv").toString();
        String out = folder.resolve("copied").toString();
        Result run = run("run", "one_file", "--shelf", shelf.toString(), "--set", "in=" + in, "--set", "to=" + out);
        assertThat(run.code()).as(run.err()).isZero();
        assertThat(run.out()).contains("Read " + in).contains(out + ".csv, 60 rows");
        Result asData =
                run("preview", "one_file", "--shelf", shelf.toString(), "--json", "--set", "in=" + in, "--set", "to=x");
        assertThat(new ObjectMapper().readTree(asData.out()).path("source").asText())
                .isEqualTo(in);
        assertThat(run("run", "one_file", "--shelf", shelf.toString(), "--set", "in=" + in)
                        .err())
                .contains("There is no value for {to}")
                .contains("--set to=");
    }

    @Test
    void aNewShelfIsMadeOnceAndFailingCasesAreReported() throws Exception {
        Path shelf = folder.resolve("new shelf");
        assertThat(run("init", shelf.toString(), "--name", "Ours").code()).isZero();
        assertThat(run("init", shelf.toString()).err()).contains("There is a shelf in this folder already");
        Path full = shelf.resolveSibling("full");
        assertThat(run("init", full.toString(), "--ready-made").out()).containsPattern("Took [0-9]+ ready-made fixes");
        assertThat(run("check", "--shelf", full.toString()).out()).contains("no problem");
        assertThat(run("list", "--shelf", shelf.toString()).out()).contains("first_job");
        String page = Files.readString(demo.resolve("fixes/text/squeeze_spaces.fix.md"));
        Files.writeString(
                shelf.resolve("fixes/squeeze_spaces.fix.md"), page.replace("'brass hinge' |", "'brass  hinge' |"));
        Path xml = folder.resolve("results.xml");
        Result failing = run("test", "--shelf", shelf.toString(), "--junit", xml.toString());
        assertThat(failing.code()).isEqualTo(1);
        assertThat(failing.out()).contains("expected 'brass··hinge'").contains("got      'brass·hinge'");
        assertThat(Files.readString(xml)).contains("failures=\"1\"").contains("<failure message=\"expected");
        Files.writeString(shelf.resolve("fixes/squeeze_spaces.fix.md"), page.replace("trim(", "trimm("));
        Result wrong = run("check", "--shelf", shelf.toString());
        assertThat(wrong.code()).isEqualTo(1);
        assertThat(wrong.err())
                .contains("fixes/squeeze_spaces.fix.md:19:47: error E103: no function trimm.")
                .contains("^^^^^")
                .contains("Nearest: trim");
        assertThat(run("check", "--shelf", shelf.toString(), "--json").out()).contains("\"line\" : 19");
        assertThat(run("list", "--shelf", folder.toString()).code()).isEqualTo(2);
    }

    private static Result run(String... arguments) {
        StringWriter out = new StringWriter();
        StringWriter err = new StringWriter();
        CommandLine line = FixshelfCommand.commandLine(List.of(), arguments);
        line.setOut(new PrintWriter(out, true));
        line.setErr(new PrintWriter(err, true));
        line.setCaseInsensitiveEnumValuesAllowed(true);
        int code = line.execute(arguments);
        return new Result(code, out.toString(), err.toString());
    }
}
