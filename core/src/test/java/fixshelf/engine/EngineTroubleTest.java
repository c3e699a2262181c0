package fixshelf.engine;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.engine.Answer.Evaluation;
import fixshelf.language.tree.Body;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.Parameter;
import fixshelf.render.JobCode;
import fixshelf.render.Languages;
import fixshelf.render.sql.SqlLanguage;
import fixshelf.type.Column;
import fixshelf.type.Type;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.sql.Connection;
import java.sql.Statement;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/// An engine that is missing, dies, hangs or talks nonsense in the middle of a check is named, and the rest goes on.
class EngineTroubleTest {
    private static final Definition FIX = new Definition(
            "same",
            List.of(new Parameter("text", Type.TEXT, Optional.empty(), "", false)),
            Type.TEXT,
            new Body(List.of(), new Expr.Name("text", Type.TEXT)));
    private static final List<Evaluation> THREE = List.of(asked("a"), asked("b"), asked("c"));
    private static final JobCode JOB = new JobCode(
            "job", "About.", List.of(new JobCode.Source("source", List.of(new Column("a", Type.TEXT)))), List.of());

    @TempDir
    Path folder;

    private static Evaluation asked(String text) {
        return new Evaluation(FIX, List.of(List.of(Expr.Literal.text(text))));
    }

    /// An interpreter that says its version and then does as `script`, in which `$4` is the file for the answers.
    private PandasEngine interpreter(String script, int seconds) throws IOException {
        Path program = folder.resolve("interpreter");
        Files.writeString(program, """
                #!/bin/sh
                if [ "$2" = -c ]; then echo pandas 9.9; exit 0; fi
                """ + script + "\n");
        Files.setPosixFilePermissions(program, PosixFilePermissions.fromString("rwx------"));
        return new PandasEngine(
                "FIXSHELF_NOTHING", List.of(folder.resolve("none").toString(), program.toString()), seconds);
    }

    @Test
    void aProcessThatDiesAtATaskLosesOnlyThatTask() throws Exception {
        PandasEngine engine = interpreter("echo '[\"one\"]' > \"$4\"; echo out of memory >&2; exit 3", 30);
        assertThat(engine.presence()).isEqualTo(new FixEngine.Presence.Here("pandas 9.9"));
        assertThat(engine.run(THREE))
                .containsExactly(
                        List.of(new Answer.Value("one")),
                        List.of(new Answer.Failed(engine.program() + " ended with 3: out of memory")),
                        List.of(new Answer.Value("one")));
    }

    @Test
    void aProcessThatHangsIsStopped() throws Exception {
        PandasEngine engine = interpreter("exec sleep 60", 1);
        String why = engine.program() + " did not end within 1 seconds and was stopped";
        assertThat(engine.run(List.of(asked("a")))).containsExactly(List.of(new Answer.Failed(why)));
        assertThat(engine.run(JOB, Map.of("source", List.of(List.of("x"))))).isEqualTo(new Answer.OfJob.Stopped(why));
    }

    @Test
    void nonsenseIsNoAnswer() throws Exception {
        PandasEngine engine = interpreter("echo 'good morning' > \"$4\"", 30);
        assertThat(engine.run(List.of(asked("a"))).getFirst())
                .singleElement()
                .asString()
                .contains("the answers cannot be read");
        assertThat(engine.run(JOB, Map.of()).toString()).contains("the answers cannot be read");
        PandasEngine few = interpreter("echo '[]' > \"$4\"", 30);
        assertThat(few.run(List.of(asked("a")))).containsExactly(List.of(new Answer.Failed("no answer")));
    }

    @Test
    void whatIsMissingIsSaidWithHowToGetIt() {
        PandasEngine engine = new PandasEngine("FIXSHELF_NOTHING", List.of("no-such-program"), 1);
        assertThat(engine.presence().sentence())
                .isEqualTo("no python3 with pandas found: install pandas, or set FIXSHELF_NOTHING");
    }

    @Test
    void aTaskThatTheInterpreterCannotReadFailsAlone() {
        FixEngine r = Engines.of("r");
        Engines.assumeHere(r);
        Definition broken = new Definition("not a name ` \\ 'x'", FIX.parameters(), FIX.returns(), FIX.body());
        Evaluation odd = new Evaluation(broken, THREE.getFirst().rows());
        assertThat(r.run(List.of(odd, asked("b"))).getLast()).containsExactly(new Answer.Value("b"));
    }

    @Test
    void aServerThatEndsAtOnceIsNotWaitedFor() {
        OtherServer server = new OtherServer("FIXSHELF_NOTHING", "echo no room on the disk; exit 1");
        assertThat(server.run(List.of(asked("a"))).getFirst())
                .singleElement()
                .asString()
                .contains("the server did not start", "no room on the disk");
        assertThat(server.run(JOB, Map.of()).toString()).contains("the server did not start");
    }

    @Test
    void aServerThatIsNamedButDoesNotAnswerIsAbsent() {
        // Any variable that is set will do as an address that leads nowhere.
        OtherServer server = new OtherServer("PATH", "exit 0");
        assertThat(server.presence().sentence()).startsWith("the server does not answer: ");
        assertThat(server.presence().isHere()).isFalse();
    }

    @Test
    void theNewestVersionIsFound() throws IOException {
        for (String version : List.of("9.6", "15", "8", "old")) {
            Path bin = Files.createDirectories(
                    folder.resolve("lib").resolve(version).resolve("bin"));
            Files.createFile(
                    bin.resolve("served"),
                    PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rwx------")));
        }
        Path pattern = folder.toRealPath().resolve("lib/*/bin");
        assertThat(PrivateServer.find("served", List.of(pattern)))
                .contains(folder.toRealPath().resolve("lib/15/bin/served"));
        assertThat(PrivateServer.find("served", List.of(folder.resolve("none/*/bin"))))
                .isEmpty();
    }

    @Test
    void aProgramThatFailsSaysItsLastWords() throws IOException {
        PrivateServer server = PrivateServer.prepare("tried", "nobody");
        try {
            server.run(List.of("sh", "-c", "echo first; echo last; exit 2"));
            assertThat(false).as("it failed").isTrue();
        } catch (IOException e) {
            assertThat(e).hasMessage("sh: last");
        }
    }

    /// PostgreSQL's language, spoken by a program that is none.
    private static final class OtherServer extends ServerEngine {
        private final String script;

        OtherServer(String variable, String script) {
            super((SqlLanguage) Languages.find("postgresql").orElseThrow(), variable);
            this.script = script;
        }

        @Override
        Optional<Path> program() {
            return Optional.of(Path.of("/bin/sh"));
        }

        @Override
        String addressForm() {
            return "jdbc:…";
        }

        @Override
        PrivateServer prepare() throws IOException {
            return PrivateServer.prepare("tried", "nobody");
        }

        @Override
        String start(PrivateServer server, Path program) throws IOException {
            server.serve(List.of(program.toString(), "-c", script));
            return "jdbc:postgresql://127.0.0.1:" + server.port() + "/none?loginTimeout=2";
        }

        @Override
        void begin(Statement statement) {}

        @Override
        Presence look(Connection connection) {
            return new Presence.Here("1");
        }
    }
}
