package fixshelf.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/// Sessions at the command line, each a text beside this test that reads as what somebody did: the files that were
/// there, what was typed, and all that was printed, to the letter. A shelf with no page stands in each folder at the
/// start.
///
/// After a part of `=== file NAME` the text is written into that file, in which `⟨00A0⟩` stands for the sign of that
/// number; `=== take` takes ready-made fixes; `=== do` gives the arguments of a command, and what follows is its exit
/// code and what it prints, with HERE for the shelf's folder, BESIDE for the one around it and WHERE for that of the
/// command; `=== show NAME` is followed by what a file holds. `-Dsessions=write` writes what came of it in its place,
/// to be read before it is kept.
class SessionsTest {
    private static final Path FOLDER = Path.of("src/test/resources/fixshelf/cli/sessions");

    @TempDir
    Path around;

    /// The shelf.
    Path folder = Path.of("");

    static Stream<Path> sessions() throws IOException {
        try (Stream<Path> files = Files.list(FOLDER)) {
            return files.sorted().toList().stream();
        }
    }

    @ParameterizedTest
    @MethodSource("sessions")
    void goesAsItIsWritten(Path session) throws IOException {
        folder = Files.createDirectory(around.resolve("shelf"));
        Files.writeString(folder.resolve("shelf.yaml"), "shelf: Ours\n");
        String written = Files.readString(session);
        StringBuilder now = new StringBuilder();
        List<String> parts = new ArrayList<>(List.of(written.split("(?m)^=== ")));
        now.append(parts.removeFirst());
        for (String part : parts) {
            String head = part.lines().findFirst().orElse("");
            String body = part.substring(Math.min(part.length(), head.length() + 1));
            now.append("=== ").append(head).append('\n').append(after(head, body));
        }
        if ("write".equals(System.getProperty("sessions"))) {
            Files.writeString(session, now.toString());
            return;
        }
        assertThat(now.toString()).isEqualTo(written);
    }

    /// What stands after a head: what was written there, or what came of it now.
    private String after(String head, String body) throws IOException {
        String[] words = head.split(" ", 2);
        String rest = words.length > 1 ? words[1] : "";
        switch (words[0]) {
            case "file" -> {
                Path file = folder.resolve(rest);
                Files.createDirectories(Objects.requireNonNull(file.getParent()));
                // What stands between two parts is one blank line, which belongs to no file.
                Files.writeString(file, signs(body.replaceFirst("\n$", "")), StandardCharsets.UTF_8);
                return body;
            }
            case "take" -> {
                String printed = run(arguments("take " + rest));
                assertThat(printed).startsWith("exit 0");
                return body;
            }
            case "do" -> {
                return run(arguments(rest)) + "\n";
            }
            case "show" -> {
                Path file = folder.resolve(rest);
                return (Files.exists(file) ? Files.readString(file).stripTrailing() : "It is not there.") + "\n\n";
            }
            default -> throw new IllegalArgumentException("No part is called " + words[0]);
        }
    }

    private static String signs(String text) {
        return Pattern.compile("⟨([0-9A-F]{4,6})⟩")
                .matcher(text)
                .replaceAll(m -> Matcher.quoteReplacement(Character.toString(Integer.parseInt(m.group(1), 16))));
    }

    /// The words of a line, as a shell takes them apart: between single quotes a blank stands for itself.
    private static List<String> arguments(String line) {
        List<String> arguments = new ArrayList<>();
        Matcher words = Pattern.compile("(?:[^ ']|'[^']*')+").matcher(line);
        while (words.find()) {
            arguments.add(signs(words.group().replace("'", "")));
        }
        return arguments;
    }

    private String run(List<String> words) {
        List<String> arguments = new ArrayList<>(words);
        arguments.addAll(List.of("--shelf", folder.toString()));
        StringWriter printed = new StringWriter();
        var line = FixshelfCommand.commandLine(List.of(), arguments.toArray(String[]::new));
        line.setOut(new PrintWriter(printed, true));
        line.setErr(new PrintWriter(printed, true));
        line.setCaseInsensitiveEnumValuesAllowed(true);
        int code = line.execute(arguments.toArray(String[]::new));
        String text = printed.toString()
                .replace(folder.toString(), "HERE")
                .replace(around.toString(), "BESIDE")
                .replace(Path.of("").toAbsolutePath().toString(), "WHERE")
                .replaceAll("[0-9.,]+ (ms|s)\\b", "SOME $1")
                .replaceAll("on [0-9-]{10} [0-9:]{5}", "on SOME DAY")
                .replaceAll("run on v?[0-9.]+", "run on SOME VERSION")
                .replaceAll("(?m) +$", "");
        return "exit " + code + "\n" + text.stripTrailing() + "\n";
    }
}
