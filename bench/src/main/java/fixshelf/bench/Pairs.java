package fixshelf.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.ToDoubleFunction;

/// Jobs against what an expert writes for the same work, whole processes in turn, pair by pair.
final class Pairs {
    private static final int LIST = 50_000;
    private static final String TYPED = "parquet";

    private static final Map<String, String> JOBS = new LinkedHashMap<>();

    static {
        JOBS.put("visits-expert", "");
        JOBS.put("filter", "  - keep_rows: outcome = 'mended'\n");
        JOBS.put("join", "  - bring_in: [grade]\n    from: grades\n    matching: {visit_no: visit_no}\n");
        JOBS.put("join-unordered", JOBS.get("join"));
        JOBS.put(
                "group",
                "  - read_as: {weight_kg: \"decimal(9,3)\"}\n"
                        + "  - group: [village]\n    measures: {visits: count_rows(), weight: sum(weight_kg)}\n");
        // From Parquet, with the types of its columns.
        JOBS.put(TYPED, "  - keep_rows: weight_kg > 1.5\n  - add: {heavier: weight_kg * 2}\n");
    }

    private Pairs() {}

    /// @param seconds runs a command, and gives how long it took
    static void compare(
            Path shelf, Path data, Path folder, int runs, List<String> byHand, ToDoubleFunction<List<String>> seconds)
            throws IOException {
        Path list = folder.resolve("grades.csv");
        list(data, list);
        Files.writeString(shelf.resolve("datasets/grades.yaml"), "dataset: grades\nread: " + list + "\n");
        Path typed = folder.resolve("visits-typed.parquet");
        typed(data, typed);
        Files.writeString(
                shelf.resolve("datasets/visits_typed.yaml"),
                "dataset: visits_typed\nread: " + typed + "\ntypes: declared\n");
        System.out.println("| job | Fix Shelf, s | by an expert, s | ratio | least and greatest of the pairs |");
        System.out.println("|---|---:|---:|---:|---|");
        for (Map.Entry<String, String> job : JOBS.entrySet()) {
            String name = job.getKey().equals("visits-expert")
                    ? "bench"
                    : job.getKey().replace('-', '_');
            if (!job.getValue().isEmpty()) {
                Files.writeString(
                        shelf.resolve("jobs/" + name + ".yaml"),
                        "job: " + name + "\nlines:\n"
                                + (name.equals(TYPED)
                                        ? "  - read: visits_typed\n"
                                        : "  - read: \"{in}\"\n    separator: \";\"\n")
                                + job.getValue()
                                + "outputs:\n  - write: \"{out}.parquet\"\n    replace: true\n");
            }
            List<Double> ours = new ArrayList<>();
            List<Double> theirs = new ArrayList<>();
            List<Double> ratios = new ArrayList<>();
            String out = folder.resolve("out-" + name).toString();
            List<String> run = new ArrayList<>(List.of(
                    "./fixshelf",
                    "run",
                    name,
                    "--shelf",
                    shelf.toString(),
                    "--allow",
                    folder.toString(),
                    "--set",
                    "out=" + out));
            if (!name.equals(TYPED)) {
                run.addAll(List.of("--set", "in=" + data));
            }
            List<String> hand = new ArrayList<>(byHand);
            Path in = name.equals(TYPED) ? typed : data;
            hand.addAll(List.of(in.toString(), out + "-expert", job.getKey(), list.toString()));
            for (int i = 0; i < runs; i++) {
                ours.add(seconds.applyAsDouble(run));
                theirs.add(seconds.applyAsDouble(hand));
                ratios.add(ours.getLast() / theirs.getLast());
            }
            System.out.printf(
                    "| %s | %.2f | %.2f | %.2f | %.2f to %.2f |%n",
                    name,
                    Bench.median(ours),
                    Bench.median(theirs),
                    Bench.median(ratios),
                    ratios.stream().min(Double::compare).orElseThrow(),
                    ratios.stream().max(Double::compare).orElseThrow());
        }
        System.out.println();
    }

    /// The visits in a Parquet file, with weights as numbers and days as days.
    private static void typed(Path data, Path file) throws IOException {
        try (Connection connection = DriverManager.getConnection("jdbc:duckdb:");
                Statement statement = connection.createStatement()) {
            statement.execute(Files.readString(Path.of("bench/scripts/typed.sql"))
                    .replace("{in}", data.toString())
                    .replace("{out}", file.toString()));
        } catch (SQLException e) {
            throw new IOException(e);
        }
    }

    /// Keys of the first visits with a grade each.
    private static void list(Path data, Path list) throws IOException {
        try (Connection connection = DriverManager.getConnection("jdbc:duckdb:");
                Statement statement = connection.createStatement()) {
            statement.execute("COPY (SELECT visit_no, 'g' || (row_number() OVER ()) % 7 AS grade FROM (SELECT DISTINCT"
                    + " visit_no FROM read_csv('" + data + "', delim = ';', header = true, all_varchar = true) LIMIT "
                    + LIST + ")) TO '" + list + "' (HEADER)");
        } catch (SQLException e) {
            throw new IOException(e);
        }
    }
}
