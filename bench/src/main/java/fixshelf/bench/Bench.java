package fixshelf.bench;

import fixshelf.demo.DemoShelf;
import fixshelf.language.tree.Definition;
import fixshelf.plan.Line;
import fixshelf.plan.Written;
import fixshelf.render.Languages;
import fixshelf.shelf.JobEdits;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.JobPages;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import fixshelf.work.PlannedJob;
import fixshelf.work.Preview;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;

/// Runs all contenders in turn and prints medians.
final class Bench {
    private static final String JOB = """
        job: bench
        lines:
          - read: "{in}"
            separator: ";"
          - fix: squeeze_spaces
            columns: [village, item, mender]
          - fix: iso_date
            columns: [received]
          - fix: amount
            columns: [parts_cost]
          - drop_repeats: [visit_no]
            keep: last
            by: [recorded_at]
        outputs:
          - write: "{out}.parquet"
            replace: true
        """;

    private static final int FIXES = 1_000;
    private static final int ROUNDS = 20;

    private static final Set<String> ONCE = Set.of("pandas by hand", "dplyr by hand");

    /// One run of a contender: seconds, and the peak of its memory in MiB.
    private record Run(double seconds, long peakMib) {}

    private Bench() {}

    public static void main(String[] arguments) throws Exception {
        if (arguments.length > 2 && arguments[2].equals("workbook")) {
            Workbooks.measure(Integer.parseInt(arguments[0]), Integer.parseInt(arguments[1]));
            return;
        }
        if (arguments.length > 2 && arguments[2].equals("look")) {
            Looks.measure(Integer.parseInt(arguments[0]), Integer.parseInt(arguments[1]));
            return;
        }
        long rows = Long.parseLong(arguments[0]);
        int runs = Integer.parseInt(arguments[1]);
        Path folder = Path.of("bench/target/data");
        Path shelf = DemoShelf.create(folder.resolve("shelf").toAbsolutePath(), 1000);
        Files.writeString(shelf.resolve("jobs/bench.yaml"), JOB);
        Path data = folder.resolve("visits-" + rows + ".csv").toAbsolutePath();
        if (!Files.exists(data)) {
            DemoShelf.writeVisits(data, rows);
        }
        System.out.printf(
                "%,d visits, %,d MB; %d processors; medians of %d runs, data frames once%n%n",
                rows, Files.size(data) / 1_000_000, Runtime.getRuntime().availableProcessors(), runs);
        // The first start after a build records what the next ones need.
        run(List.of("./fixshelf", "--help"));
        if (arguments.length > 2) {
            Pairs.compare(shelf, data, folder.toAbsolutePath(), runs, java("HandWritten"), c -> run(c).seconds());
            return;
        }
        Map<String, List<Run>> results = new LinkedHashMap<>();
        Map<String, List<String>> contenders = contenders(shelf, data, folder.toAbsolutePath());
        for (int i = 0; i < runs; i++) {
            boolean first = i == 0;
            contenders.forEach((name, command) -> {
                // The data frames take minutes at this size; one run of them is enough to see how far they are.
                if (first || !ONCE.contains(name)) {
                    results.computeIfAbsent(name, _ -> new ArrayList<>()).add(run(command));
                }
            });
        }
        print(results);
        preview(shelf, data);
        thousandFixes(shelf, folder.resolve("thousand").toAbsolutePath());
        window(shelf, runs);
    }

    private static Map<String, List<String>> contenders(Path shelf, Path data, Path folder) {
        String out = folder.resolve("out").toString();
        String in = data.toString();
        Map<String, List<String>> all = new LinkedHashMap<>();
        all.put(
                "Fix Shelf",
                List.of(
                        "./fixshelf",
                        "run",
                        "bench",
                        "--shelf",
                        shelf.toString(),
                        "--set",
                        "in=" + in,
                        "--set",
                        "out=" + out + "-ours"));
        all.put("DuckDB SQL by hand", java("HandWritten", in, out + "-sql"));
        String python = System.getenv().getOrDefault("FIXSHELF_PYTHON", "python3");
        if (run(List.of(python, "-c", "import pandas")).seconds() > 0) {
            all.put("pandas by hand", List.of(python, "bench/scripts/visits.py", in, out + "-pandas"));
        }
        if (run(List.of("Rscript", "-e", "library(dplyr); library(readr)")).seconds() > 0) {
            all.put("dplyr by hand", List.of("Rscript", "bench/scripts/visits.R", in, out + "-dplyr"));
        }
        return all;
    }

    private static List<String> java(String main, String... arguments) {
        List<String> command = new ArrayList<>(List.of(
                Path.of(System.getProperty("java.home"), "bin/java").toString(),
                "-XX:+UseSerialGC",
                "--enable-native-access=ALL-UNNAMED",
                "--sun-misc-unsafe-memory-access=allow",
                "-cp",
                System.getProperty("java.class.path"),
                "fixshelf.bench." + main));
        command.addAll(List.of(arguments));
        return command;
    }

    /// Runs a process to its end; negative seconds when it cannot be run or fails.
    private static Run run(List<String> command) {
        try {
            long start = System.nanoTime();
            Process process = new ProcessBuilder(command)
                    .redirectErrorStream(true)
                    .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                    .start();
            long peak = 0;
            while (!process.waitFor(20, TimeUnit.MILLISECONDS)) {
                peak = Math.max(peak, peakKib(process.pid()));
            }
            double seconds = (System.nanoTime() - start) / 1e9;
            return process.exitValue() == 0 ? new Run(seconds, peak / 1024) : new Run(-1, 0);
        } catch (IOException e) {
            return new Run(-1, 0);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return new Run(-1, 0);
        }
    }

    private static long peakKib(long pid) {
        try {
            return Files.readAllLines(Path.of("/proc/" + pid + "/status")).stream()
                    .filter(l -> l.startsWith("VmHWM"))
                    .mapToLong(l -> Long.parseLong(l.replaceAll("\\D", "")))
                    .findFirst()
                    .orElse(0);
        } catch (IOException e) {
            return 0;
        }
    }

    static double median(List<Double> values) {
        List<Double> sorted = values.stream().sorted().toList();
        return sorted.get(sorted.size() / 2);
    }

    private static void print(Map<String, List<Run>> results) {
        double ours = median(results.get("Fix Shelf").stream().map(Run::seconds).toList());
        System.out.println("| what | seconds | times Fix Shelf | peak MiB |");
        System.out.println("|---|---:|---:|---:|");
        results.forEach((name, runs) -> {
            double seconds = median(runs.stream().map(Run::seconds).toList());
            double peak = median(runs.stream().map(r -> (double) r.peakMib()).toList());
            System.out.printf("| %s | %.2f | %.2f | %,.0f |%n", name, seconds, seconds / ours, peak);
        });
        System.out.println();
    }

    /// A preview after an edit of a line, with a million rows staged; the edits alternate so that nothing is cached.
    private static void preview(Path root, Path data) throws IOException {
        Shelf shelf = ShelfReader.read(root).get();
        JobPage job = shelf.job("bench").orElseThrow();
        Map<String, String> values = Map.of("in", data.toString(), "out", "out");
        PlannedJob planned = PlannedJob.plan(shelf, job, values).get();
        List<Double> millis = new ArrayList<>();
        try (Preview preview = Preview.open(planned.source()).get()) {
            preview.look(planned).get();
            for (int i = 0; i < 11; i++) {
                Line edited = Line.of(
                                "squeeze_spaces",
                                "columns",
                                Written.words(List.of(
                                        i % 2 == 0 ? "village" : "item",
                                        "mender",
                                        i % 3 == 0 ? "fault" : "tags",
                                        "phone")))
                        .with("keep_ends", Optional.of(Written.word(i % 2 == 0 ? "true" : "false")));
                String text = JobEdits.replaceLine(job, 1, edited);
                long start = System.nanoTime();
                JobPage changed = JobPages.read(job.file(), new fixshelf.problem.SourceText("bench", text));
                PlannedJob draft = PlannedJob.draft(shelf, changed, values).get();
                preview.look(draft).get();
                preview.rows(draft, 2, Preview.View.CHANGED, 0, 200).get();
                millis.add((System.nanoTime() - start) / 1e6);
            }
            System.out.printf(
                    "Preview after an edit, %,d rows staged, first %,d looked at: %.0f ms (median of %d)%n",
                    preview.staged(), preview.rows(), median(millis), millis.size());
        }
    }

    /// Reading, checking and rendering a large shelf: the demo's pages again and again, under other names.
    private static void thousandFixes(Path demo, Path large) throws IOException {
        List<Path> pages;
        try (Stream<Path> files = Files.walk(demo.resolve("fixes"))) {
            pages = files.filter(f -> f.toString().endsWith(".fix.md")).sorted().toList();
        }
        Files.createDirectories(large.resolve("fixes"));
        Files.copy(demo.resolve("shelf.yaml"), large.resolve("shelf.yaml"), StandardCopyOption.REPLACE_EXISTING);
        for (int i = 0; i < FIXES; i++) {
            String text = Files.readString(pages.get(i % pages.size()));
            String name = text.lines()
                    .filter(l -> l.startsWith("fix: "))
                    .findFirst()
                    .orElseThrow()
                    .substring(5);
            // The first ones keep their names, so that fixes that call others still find them.
            String other = i < pages.size() ? name : name + "_" + i;
            Files.writeString(
                    large.resolve("fixes/" + other + ".fix.md"), text.replaceFirst("fix: " + name, "fix: " + other));
        }
        List<Double> millis = new ArrayList<>();
        int rendered = 0;
        for (int i = 0; i < ROUNDS; i++) {
            long start = System.nanoTime();
            Shelf shelf = ShelfReader.read(large).get();
            int problems = shelf.problems().size();
            List<Definition> fixes = shelf.fixes().stream()
                    .flatMap(p -> shelf.definition(p).value().stream())
                    .toList();
            rendered = (int) fixes.parallelStream()
                    .flatMap(f -> Languages.ALL.stream()
                            .filter(l -> l.definition(f, "").isPresent()))
                    .count();
            if (problems > 0) {
                throw new IllegalStateException(problems + " problems");
            }
            millis.add((System.nanoTime() - start) / 1e6);
        }
        System.out.printf(
                "A shelf of %,d fixes, read, checked and rendered into %d languages (%,d definitions): %.0f ms at first,"
                        + " %.0f ms warm%n",
                FIXES, Languages.ALL.size(), rendered, millis.getFirst(), median(millis.subList(ROUNDS / 2, ROUNDS)));
    }

    /// From the start of the process until the window is visible; needs a display.
    private static void window(Path shelf, int runs) throws Exception {
        if (System.getenv("DISPLAY") == null) {
            System.out.println("Window visible: not measured, there is no display.");
            return;
        }
        List<Double> millis = new ArrayList<>();
        for (int i = 0; i <= runs; i++) {
            ProcessBuilder builder = new ProcessBuilder("./fixshelf", "window", shelf.toString())
                    .redirectError(ProcessBuilder.Redirect.DISCARD);
            builder.environment().put("FIXSHELF_JAVA_OPTIONS", "-Dfixshelf.measure=true");
            Process process = builder.start();
            String line = process.inputReader().readLine();
            if (line != null && i > 0) {
                millis.add(Double.parseDouble(line.replaceAll("\\D", "")));
            }
            process.destroy();
            process.waitFor();
        }
        if (millis.isEmpty()) {
            System.out.println("Window visible: not measured, the window could not be opened on this display.");
        } else {
            System.out.printf("Window visible: %.0f ms (median of %d)%n", median(millis), millis.size());
        }
    }
}
