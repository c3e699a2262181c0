package fixshelf.demo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.fail;

import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import fixshelf.work.Preview;
import fixshelf.work.PlannedJob;
import fixshelf.work.ShelfProblems;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/// Pages of the demo shelf, broken in one place at random: every problem is in words of ours and has its place, and no
/// page takes others down.
@Tag("proof")
class BrokenPagesTest {
    private static final int PAGES = Integer.getInteger("pages.count", 60);
    private static final long SEED = Long.getLong("pages.seed", 20261202);

    /// What may stand where something else should.
    private static final List<String> NASTY = List.of(
            "[]",
            "{}",
            "null",
            "~",
            "true",
            "-1",
            "0",
            "1e999",
            "99999999999999999999",
            "x",
            "''",
            "\"\"",
            "\"\\u0000\"",
            "!!set {a}",
            "*a",
            "&a [*a, *a]",
            "\t",
            "😀",
            "2026-02-30",
            "{a: {b: [c]}}",
            "- ",
            "? x",
            "|",
            ">-",
            "@x",
            "`x`",
            "{x}",
            "\"{x}\"",
            "{{x}}",
            "[1, [2]]",
            "{a: 1, a: 2}",
            "every column",
            "{like: \"(\"}",
            "{every: number}",
            "(",
            ")",
            "';--",
            "NULL",
            "a b",
            "it",
            "/etc/passwd",
            "../x",
            "ſ",
            "İ",
            "\u200B",
            "\u2028",
            "\uFEFF",
            "\r",
            "#",
            "---",
            "...",
            "%YAML 1.9",
            "x".repeat(3_000));

    /// What no user should read: the words of a library, of the engine or of Java.
    private static final Pattern FOREIGN =
            Pattern.compile("Exception|\\bjava\\.|fixshelf\\.[a-z]+\\.|@[0-9a-f]{6,8}\\b|Optional\\[|Optional\\.empty"
                    + "|(Binder|Parser|Catalog|Conversion|Internal|Invalid Input) Error|mapping values are not|while (scanning|parsing)|could not find expected"
                    + "|lambda|StackOverflow");

    @TempDir
    Path folder;

    private final Random random = new Random(SEED);

    @Test
    void areToldInWordsAndInTheirPlaces() throws Exception {
        Path root = DemoShelf.create(folder, 60);
        List<Path> pages;
        try (Stream<Path> all = Files.walk(root)) {
            pages = all.filter(p -> p.toString().endsWith(".fix.md")
                            || p.toString().endsWith(".yaml") && !p.toString().contains(".fixshelf"))
                    .sorted()
                    .toList();
        }
        assertThat(pages).hasSizeGreaterThan(100);
        List<String> wrong = new ArrayList<>();
        for (int i = 0; i < PAGES; i++) {
            Path page = pages.get(random.nextInt(pages.size()));
            String text = Files.readString(page);
            String broken = broken(text);
            Files.writeString(page, broken);
            String name = root.relativize(page).toString();
            try {
                told(root, name, broken).forEach(w -> wrong.add(w + "\n--- " + name + "\n" + difference(text, broken)));
            } catch (RuntimeException | Error e) {
                fail("--- " + name + "\n" + difference(text, broken), e);
            } finally {
                Files.writeString(page, text);
            }
        }
        assertThat(wrong).isEmpty();
    }

    /// What is wrong with what is told of a shelf with one broken page.
    private List<String> told(Path root, String page, String text) {
        Outcome<Shelf> shelf = ShelfReader.read(root);
        List<Problem> problems = new ArrayList<>(shelf.problems());
        if (shelf.isPresent()) {
            problems.addAll(ShelfProblems.of(shelf.get()).problems());
            for (JobPage job : shelf.get().jobs()) {
                if (page.contains(job.name())) {
                    problems.addAll(seen(shelf.get(), job));
                }
            }
        } else {
            assertThat(page).isEqualTo("shelf.yaml");
        }
        long lines = text.lines().count() + 1;
        return problems.stream()
                .filter(p -> FOREIGN.matcher(p.what() + " " + p.todo()).find()
                        || p.what().isBlank()
                        || p.where().source().name().endsWith(page)
                                && p.where().span().end()
                                        > p.where().source().text().length()
                        || p.where().source().name().endsWith(page)
                                && p.where().position().line() > lines)
                .map(p -> p.where().source().name() + " " + p.where().span() + ": " + p.sentence() + " / " + p.todo())
                .toList();
    }

    private static List<Problem> seen(Shelf shelf, JobPage job) {
        Outcome<PlannedJob> planned = PlannedJob.draft(shelf, job, Map.of());
        if (!planned.isPresent()) {
            return planned.problems();
        }
        Outcome<Preview> opened = Preview.open(planned.get().source());
        if (!opened.isPresent()) {
            return opened.problems();
        }
        try (Preview preview = opened.get()) {
            return preview.look(planned.get()).problems();
        }
    }

    private String broken(String text) {
        List<String> lines = new ArrayList<>(text.lines().toList());
        int at = random.nextInt(lines.size());
        String line = lines.get(at);
        switch (random.nextInt(12)) {
            case 0 -> lines.remove(at);
            case 1 -> lines.add(at, line);
            case 2 -> Collections.swap(lines, at, random.nextInt(lines.size()));
            case 3 -> lines.set(at, "  " + line);
            case 4 -> lines.set(at, line.startsWith("  ") ? line.substring(2) : "\t" + line);
            case 5, 6, 7 ->
                lines.set(at, line.contains(":") ? line.substring(0, line.indexOf(':') + 1) + " " + nasty() : nasty());
            case 8 -> lines.set(at, between(line, nasty()));
            case 9 -> lines.set(at, between(line, ""));
            case 10 -> {
                return text.substring(0, random.nextInt(text.length()));
            }
            default -> {
                String[] words = line.split("(?<=\\W)|(?=\\W)");
                words[random.nextInt(words.length)] = word(lines);
                lines.set(at, String.join("", words));
            }
        }
        return lines.stream().collect(Collectors.joining("\n", "", "\n"));
    }

    private String nasty() {
        return NASTY.get(random.nextInt(NASTY.size()));
    }

    private String between(String line, String what) {
        int from = random.nextInt(line.length() + 1);
        int to = Math.min(line.length(), from + random.nextInt(4));
        return line.substring(0, from) + what + line.substring(to);
    }

    private String word(List<String> lines) {
        String[] words = lines.get(random.nextInt(lines.size())).split("\\W+");
        return words.length == 0 ? "x" : words[random.nextInt(words.length)];
    }

    private static String difference(String text, String broken) {
        List<String> before = text.lines().toList();
        List<String> now = broken.lines().toList();
        int at = 0;
        while (at < before.size() && at < now.size() && before.get(at).equals(now.get(at))) {
            at++;
        }
        return "line " + (at + 1) + "\n- " + (at < before.size() ? before.get(at) : "(end)") + "\n+ "
                + (at < now.size()
                        ? now.get(at).substring(0, Math.min(200, now.get(at).length()))
                        : "(end)");
    }
}
