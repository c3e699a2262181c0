package fixshelf.work;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpServer;
import fixshelf.engine.FixEngines;
import fixshelf.fetch.Consent;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.TableFixPage;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentLinkedQueue;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// Loaders: pages that read a table with arguments, called by datasets, by first lines, and for each row of a table.
class LoadersTest extends LoaderShelf {
    @Test
    void aCallGivesTypedRowsToJobsAndTextsToLookAt() throws Exception {
        dataset("load: visits_of\nwith: {room: quay, least: 2}");
        assertThat(rows("d")).isEqualTo("no|paid|room\nb|2.00|quay");
        write("jobs/first.yaml", """
                job: first
                lines:
                  - visits_of: {room: "07", year: 2025}
                  - add: {twice: paid * 2}
                """);
        write("jobs/brought.yaml", """
                job: brought
                lines:
                  - read: d
                  - put_under: first
                """);
        assertThat(words(ShelfProblems.of(read()).problems())).isEmpty();
        assertThat(result("first")).isEqualTo("[[d, 8.00, 07, 16.00]]");
        assertThat(result("brought")).isEqualTo("[[b, 2.00, quay, null], [d, 8.00, 07, 16.00]]");
        // What is read is a source, also where a loader reads it.
        write("jobs/over.yaml", "job: over\nlines:\n  - read: d\noutputs:\n  - write: data/quay-2026.csv\n");
        PlannedJob over =
                PlannedJob.plan(read(), read().job("over").get(), Map.of()).get();
        assertThat(over.targets().getFirst().objection()).isPresent();
    }

    @Test
    void aCopyOfWhatACallGivesIsAsNewAsItsFile() throws Exception {
        dataset("load: visits_of\nwith: {room: mere}");
        assertThat(rows("d")).endsWith("c|7.00|mere");
        write("data/mere-2026.csv", "no,paid\nc,70\n");
        assertThat(rows("d")).endsWith("c|70.00|mere");
        try (var copies = Files.list(folder.resolve(".fixshelf/copies"))) {
            assertThat(copies).hasSize(2);
        }
        // What its lines leave out, and lose, is told.
        write("data/mere-2026.csv", "no,paid\nc,-1\nd,x\ne,5\n");
        assertThat(Datasets.open(read(), "d").get().notes(java.util.Optional.empty()))
                .containsExactly("Given by visits_of (room mere): 1 of 3 rows comes out.");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "load: visit_of                              ; There is no loader visit_of on this shelf. Nearest: visits_of.",
                "load: visits_of                             ; visits_of needs room. The room.",
                "load: visits_of¶with: {room: a, rom: b}     ; visits_of has no parameter rom. Nearest: room.",
                "load: visits_of¶with: {room: a, year: x}    ; year: x is no integer.",
                "load: visits_of¶with: {room: '{data}'}      ; data-2026.csv",
                "load: visits_of¶with: {room: '{dat}'}       ; room would be read as a value of the shelf",
                "load: visits_of¶with: {room: {sql: 1 + no}} ; no name no",
                "load: visits_of¶with: {room: away}          ; away-2026.csv",
                "load: visits_of¶with: quay                  ; `with` gives arguments by their names.",
                "load: visits_of¶sheet: a                    ; There is no field sheet here.",
                "load: visits_of¶from: {room: a}             ; Only calls for the rows of a table have from.",
                "load: visits_of¶for_each: rooms             ; Which columns of the table are arguments?",
                "load: visits_of¶for_each: no¶from: {room: a} ; There is no dataset or job no on this shelf.",
                "load: visits_of¶for_each: d¶from: {year: a} ; visits_of needs room.",
                "load: visits_of¶for_each: d¶from: {room: no} ; Datasets read each other in a circle: d → d.",
            })
    void whatIsWrongWithACallIsSaid(String page, String problem) throws Exception {
        dataset(page.replace("¶", "\n"));
        Shelf shelf = read();
        List<Problem> problems = new java.util.ArrayList<>(shelf.problems());
        if (problems.isEmpty()) {
            problems.addAll(Datasets.open(shelf, "d").problems());
        }
        assertThat(words(problems)).contains(problem);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "- keep_rows: 'true'                          ; The first line of a loader reads something.",
                "- read: {file: data/quay-2026.csv}¶- read: {file: b.csv} ; Only the first line reads a file itself.",
                "- read: {file: a.sqlite, query: 'SELECT 1 WHERE {year:0000} > 1'} ; A query takes year as the value that it is, and no pattern: {year:0000}.",
                "- read: {file: '{room:00}.csv'}              ; is no pattern for quay",
                "- read: {file: a.csv}¶- drop_repeats: [no]¶  strict: true ; cannot stop a run by itself",
                "- read: d                                    ; Jobs read each other in a circle: d → d.",
                "- read: {file: '{data}/{room}-{year}.csv'}   ; visits_of says that it returns no, paid decimal(9,2), room, and gives no, paid.",
            })
    void whatIsWrongWithALoaderIsSaid(String lines, String problem) throws Exception {
        write(
                "fixes/visits_of.fix.md",
                VISITS.replaceFirst(
                        "(?s)```yaml.*?```",
                        "```yaml\n" + lines.replace("¶", "\n").replace("$", "\\$") + "\n```"));
        dataset("load: visits_of\nwith: {room: quay}");
        Shelf shelf = read();
        List<Problem> problems = new java.util.ArrayList<>(shelf.problems());
        problems.addAll(Datasets.open(shelf, "d").problems());
        assertThat(words(problems)).contains(problem);
    }

    @Test
    void itsCasesAreTriedInEveryLanguage() throws Exception {
        Shelf shelf = read();
        TableFixPage page = shelf.loader("visits_of").orElseThrow();
        assertThat(page.problems()).isEmpty();
        Outcome<List<OperationExamples.Example>> examples =
                OperationExamples.of(LoaderCases.ready(shelf, page), shelf.callables());
        assertThat(examples.problems()).isEmpty();
        assertThat(examples.get()).hasSize(3);
        for (var engine : FixEngines.ALL) {
            if (engine.presence().isHere()) {
                assertThat(OperationExamples.in(engine, examples.get()))
                        .allMatch(
                                r -> r.verdict() instanceof JobParity.Same
                                        // It has no decimals, and says so.
                                        || engine.language().id().equals("sqlite")
                                                && r.verdict() instanceof JobParity.CannotSay,
                                engine.language().title());
            }
        }
        // A case whose file is another, or away, does not hold.
        write("fixes/cases/some.csv", "no,paid\nz,8\n");
        assertThat(OperationExamples.check(LoaderCases.ready(shelf, page), shelf.callables(), FixEngines.ALL.getFirst())
                        .differs())
                .isTrue();
        Files.delete(folder.resolve("fixes/cases/some.csv"));
        assertThat(OperationExamples.of(LoaderCases.ready(shelf, page), shelf.callables())
                        .problems())
                .first()
                .matches(p -> p.what().contains("cases/some.csv"));
    }

    @Test
    void argumentsOfAPageLeadToNoOther() throws Exception {
        var asked = new ConcurrentLinkedQueue<String>();
        HttpServer server = HttpServer.create(new InetSocketAddress("127.0.0.1", 0), 0);
        server.createContext("/", e -> {
            asked.add(e.getRequestURI().toString());
            boolean there = !e.getRequestURI().getPath().contains("none");
            byte[] page = "<table><tr><td>x</td></tr><tr><td>1</td></tr></table>".getBytes(StandardCharsets.UTF_8);
            e.sendResponseHeaders(there ? 200 : 404, there ? page.length : -1);
            if (there) {
                e.getResponseBody().write(page);
            }
            e.close();
        });
        server.start();
        String host = "127.0.0.1:" + server.getAddress().getPort();
        write("fixes/page_of.fix.md", """
                ---
                fix: page_of
                kind: loader
                parameters:
                  part: {type: text}
                  day: {type: date, default: 2026-03-02}
                ---
                # Page

                ```yaml
                - read: {page: "http://HOST/{part}/{day:yyyy/M/d}", keep: 1 day}
                ```
                """.replace("HOST", host));
        write("datasets/parts.yaml", """
                dataset: parts
                columns: [part]
                values: [[a/../b?c#d], [é ü], [none], [é ü], [∅]]
                """);
        dataset("load: page_of\nfor_each: parts\nfrom: {part: part}");
        try {
            // Nobody allowed it: that is no failure of single calls.
            assertThat(words(Datasets.open(read(), "d").problems())).contains("which you have not allowed");
            assertThat(asked).isEmpty();
            Consent.forNow(Consent.Place.of(host));
            assertThat(words(Datasets.open(read(), "d").problems()))
                    .contains("2 of 4 calls fail. part none: ", "part ∅: an argument is missing.")
                    .contains("There is no such page (404).");
            assertThat(asked)
                    .contains("/a%2F..%2Fb%3Fc%23d/2026/3/2", "/%C3%A9%20%C3%BC/2026/3/2", "/none/2026/3/2")
                    .hasSize(3);
            // Those that did not fail are not asked for again.
            dataset("load: page_of\nfor_each: parts\nfrom: {part: part}\nfailed: leave_out");
            var opened = Datasets.open(read(), "d");
            assertThat(ReadRows.of(opened)).isEqualTo("part|x\na/../b?c#d|1\né ü|1");
            assertThat(opened.get().notes(java.util.Optional.empty()).getFirst())
                    .startsWith(
                            "Given by 2 calls of page_of, for the rows of parts: 2 rows; 2 calls failed and gave no rows: part none")
                    .contains("part ∅: an argument is missing, read ");
            assertThat(asked).hasSize(4).last().matches(u -> u.contains("none"));
        } finally {
            server.stop(0);
        }
    }

    /// A value for this run reaches what is read, through a loader and through another job.
    @Test
    void valuesOfARunReachWhatIsReadInTheEnd() throws Exception {
        Files.createDirectories(folder.resolve("other"));
        write("other/quay-2026.csv", "no,paid\nx,9\n");
        dataset("load: visits_of\nwith: {room: quay}");
        write("jobs/direct.yaml", "job: direct\nlines:\n  - read: {file: \"{data}/quay-2026.csv\"}\n");
        write("jobs/calls.yaml", "job: calls\nlines:\n  - visits_of: {room: quay}\n");
        write("jobs/reads.yaml", "job: reads\nlines:\n  - read: d\n");
        write("jobs/again.yaml", "job: again\nlines:\n  - read: direct\n");
        for (String job : List.of("direct", "calls", "reads", "again")) {
            PlannedJob planned = PlannedJob.plan(read(), read().job(job).orElseThrow(), Map.of("data", "other"))
                    .get();
            try (Preview preview = Preview.open(planned.source()).get()) {
                assertThat(preview.grid(planned, 1).get().rows().toString())
                        .as(job)
                        .startsWith("[[x, 9");
            }
        }
    }

    @Test
    void aLostValueStopsWhereTheCallIsStrict() throws Exception {
        write("data/quay-2026.csv", "no,paid\na,1.50\nb,free\n");
        write("fixes/visits_of.fix.md", VISITS.replace("- keep_rows: paid >= least\n", ""));
        dataset("load: visits_of\nwith: {room: quay}");
        assertThat(Datasets.open(read(), "d").get().notes(java.util.Optional.empty()))
                .containsExactly("Given by visits_of (room quay): 2 rows, 1 value is lost.");
        dataset("load: visits_of\nwith: {room: quay}\nstrict: true");
        assertThat(words(Datasets.open(read(), "d").problems())).contains("loses 1 value, and is strict");
        write(
                "jobs/strict.yaml",
                "job: strict\nlines:\n  - visits_of: {room: quay}\n    strict: true\noutputs:\n  - write: o.csv\n");
        write("jobs/reads.yaml", "job: reads\nlines:\n  - read: d\noutputs:\n  - write: o.csv\n");
        for (String job : List.of("strict", "reads")) {
            PlannedJob planned = PlannedJob.plan(read(), read().job(job).orElseThrow(), Map.of())
                    .get();
            assertThat(words(JobRun.run(planned, JobRun.Watcher.NONE).problems()))
                    .as(job)
                    .contains("loses 1 value");
        }
        assertThat(folder.resolve("o.csv")).doesNotExist();
    }

    /// Also where a check is all that changed: no copy of before answers for it.
    @Test
    void aCheckThatIsBrokenGivesNoRows() throws Exception {
        dataset("load: visits_of\nwith: {room: quay}");
        assertThat(rows("d")).contains("b|2.00");
        write(
                "fixes/visits_of.fix.md",
                VISITS.replace("- add: {room: room}", "- make_sure: paid < 2\n- add: {room: room}"));
        assertThat(words(Datasets.open(read(), "d").problems())).contains("d stops: 1 row breaks its line 2");
        // Of several calls the others stay; the file that does not fit is read once and named.
        write("fixes/visits_of.fix.md", VISITS);
        write("data/mere-2026.csv", "no,paid\nc,7,too much\n");
        write("datasets/rooms.yaml", "dataset: rooms\ncolumns: [room]\nvalues: [[quay], [mere]]\n");
        dataset("load: visits_of\nfor_each: rooms\nfrom: {room: room}");
        assertThat(words(Datasets.open(read(), "d").problems())).contains("1 of 2 calls fail. room mere: ");
        // The table of calls itself has to hold: a row of it that is not read would be a call that nobody misses.
        write("data/rooms.csv", "room\nquay\nmere,x\n");
        write("jobs/sure.yaml", "job: sure\nlines:\n  - read: rooms\n  - make_sure: room <> 'mere'\n");
        for (String table : List.of("files", "sure")) {
            write("datasets/files.yaml", "dataset: files\nread: data/rooms.csv\n");
            dataset("load: visits_of\nfor_each: " + table + "\nfrom: {room: room}\nfailed: leave_out");
            assertThat(words(Datasets.open(read(), "d").problems()))
                    .as(table)
                    .containsAnyOf("rooms.csv", "sure, which rows of sure reads, would stop: 1 row breaks");
        }
        dataset("load: visits_of\nfor_each: rooms\nfrom: {room: room}\nfailed: leave_out");
        for (int i = 0; i < 2; i++) {
            var opened = Datasets.open(read(), "d");
            assertThat(ReadRows.of(opened)).isEqualTo("no|paid|room\na|1.50|quay\nb|2.00|quay");
            assertThat(opened.get().notes(java.util.Optional.empty()).getFirst())
                    .contains("2 rows; 1 call failed and gave no rows: room mere");
        }
    }

    /// A place that is not allowed stays one to be allowed, wherever a line leads to it.
    @Test
    void whatIsNotAllowedIsAskedForWhereverItIsBroughtIn() throws Exception {
        write("fixes/page_of.fix.md", """
                ---
                fix: page_of
                kind: loader
                parameters: {part: {type: text}}
                ---
                # Page

                ```yaml
                - read: {page: "http://127.0.0.1:1/{part}"}
                ```
                """);
        write("datasets/web.yaml", "dataset: web\nkind: web\nread: http://127.0.0.1:1/x\n");
        write("datasets/parts.yaml", "dataset: parts\ncolumns: [part]\nvalues: [[a]]\n");
        write("datasets/page.yaml", "dataset: page\nload: page_of\nwith: {part: a}\n");
        write("datasets/pages.yaml", "dataset: pages\nload: page_of\nfor_each: parts\nfrom: {part: part}\n");
        for (String lines : List.of(
                "- read: web",
                "- read: page",
                "- read: pages",
                "- page_of: {part: a}",
                "- read: parts\n  - read: web",
                "- read: parts\n  - page_of: {part: a}",
                "- read: parts\n  - put_under: web",
                "- read: parts\n  - put_under: page",
                "- read: parts\n  - put_under: pages")) {
            write("jobs/asks.yaml", "job: asks\nlines:\n  " + lines + "\n");
            List<Problem> problems = PlannedJob.plan(read(), read().job("asks").orElseThrow(), Map.of())
                    .problems();
            assertThat(problems.stream()
                            .flatMap(p -> Consent.askedBy(p).stream())
                            .map(Consent.Place::name))
                    .as(lines)
                    .contains("127.0.0.1:1");
            assertThat(ShelfProblems.of(read()).problems()).as(lines).isEmpty();
        }
        assertThat(Datasets.asked(read())).extracting(Consent.Place::name).containsExactly("127.0.0.1:1");
        // All places of a job are asked for at once, those of calls in later lines too.
        write(
                "fixes/other_of.fix.md",
                Files.readString(folder.resolve("fixes/page_of.fix.md"))
                        .replace("page_of", "other_of")
                        .replace(":1/", ":2/"));
        write("jobs/asks.yaml", "job: asks\nlines:\n  - read: web\n  - other_of: {part: a}\n");
        assertThat(Datasets.asked(read(), read().job("asks").orElseThrow()))
                .extracting(Consent.Place::name)
                .containsExactlyInAnyOrder("127.0.0.1:1", "127.0.0.1:2");
    }

    @Test
    void itIsTriedLineByLine() {
        Shelf shelf = read();
        TableFixPage page = shelf.loader("visits_of").orElseThrow();
        List<TableTrial.On> on = TableTrial.tables(shelf, "visits_of");
        assertThat(on).extracting(TableTrial.On::name).containsExactly("with arguments of your own");
        List<PlannedJob> plans = TableTrial.plans(
                        shelf, page, on.getFirst(), Map.of("room", fixshelf.plan.Written.word("quay")))
                .get();
        assertThat(plans).hasSize(4);
        assertThat(plans.getLast().plan().columns()).hasSize(3);
    }
}
