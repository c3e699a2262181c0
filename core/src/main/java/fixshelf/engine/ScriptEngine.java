package fixshelf.engine;

import fixshelf.engine.Answer.Evaluation;
import fixshelf.language.emulation.Inliner;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Parameter;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.render.JobCode;
import fixshelf.render.Language;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;

/// An interpreter as a process of its own: one start for many fixes, data passed as files.
///
/// The script writes one line of answers for each task as it goes. When the process dies or hangs at a task, that
/// task fails and the rest is run by the next process.
abstract class ScriptEngine implements FixEngine {
    /// How long a process may take.
    static final int SECONDS = Patience.seconds(120);

    private final Language language;
    private final String variable;
    private final List<String> usual;
    private final int seconds;
    private Optional<Presence> presence = Optional.empty();
    private String program = "";

    /// `usual` are the programs to try when `variable` names none.
    ScriptEngine(Language language, String variable, List<String> usual, int seconds) {
        this.language = language;
        this.variable = variable;
        this.usual = usual;
        this.seconds = seconds;
    }

    /// The interpreter that was found.
    final String program() {
        presence();
        return program;
    }

    /// Rows that share the fixed arguments, and the code for them.
    ///
    /// @param prelude definitions that the call needs
    /// @param call a call of a function, or an expression over `p0`, `p1`, …
    /// @param asFunction whether `call` is the name of a function
    record Task(Groups group, Evaluation evaluation, String prelude, String call, boolean asFunction) {}

    /// How the interpreter is told to read nothing of the place where it is started, nor of the user's own folder.
    abstract String alone();

    /// A command that prints the version, or fails when something is missing.
    abstract List<String> probe(String interpreter);

    /// The name of the script that runs tasks, beside this class.
    abstract String script();

    /// Writes the tasks into a file.
    abstract void write(List<Task> tasks, Path file) throws IOException;

    /// Reads a line of answers, one for each row of the task.
    abstract List<Answer> read(String line, Task task) throws IOException;

    /// A job and the rows of its sources as a task; a problem where a value cannot be written.
    abstract String task(Job job, String code) throws IOException;

    /// Writes the tasks of jobs into a file.
    abstract void writeJobs(List<String> tasks, Path file) throws IOException;

    /// Reads the line of answers of a job: its rows, as values of the columns' types.
    abstract Answer.OfJob read(String line, JobCode job) throws IOException;

    /// What an expression needs before it.
    abstract String prelude(String expression);

    abstract String functionName(Definition fix);

    @Override
    public Language language() {
        return language;
    }

    @Override
    public synchronized Presence presence() {
        if (presence.isEmpty()) {
            presence = Optional.of(look());
        }
        return presence.get();
    }

    private Presence look() {
        String named = Objects.requireNonNullElse(System.getenv(variable), "");
        // A module or a profile in the folder where the program is started must not be run.
        try (TemporaryFolder elsewhere = TemporaryFolder.make(language.id())) {
            return look(named, elsewhere.path());
        } catch (IOException e) {
            return new Presence.Absent("no folder for temporary files: " + e.getMessage());
        }
    }

    private Presence look(String named, Path elsewhere) {
        for (String candidate : named.isBlank() ? usual : List.of(named)) {
            try {
                Process process = new ProcessBuilder(probe(candidate))
                        .directory(elsewhere.toFile())
                        .redirectError(ProcessBuilder.Redirect.DISCARD)
                        .start();
                String version = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8).strip();
                if (process.waitFor(30, TimeUnit.SECONDS) && process.exitValue() == 0) {
                    program = candidate;
                    return new Presence.Here(version);
                }
            } catch (IOException e) {
                System.getLogger(ScriptEngine.class.getName()).log(System.Logger.Level.DEBUG, candidate, e);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        }
        return new Presence.Absent(missing() + ", or set " + variable);
    }

    /// What is missing and how to get it.
    abstract String missing();

    @Override
    public List<List<Answer>> run(List<Evaluation> evaluations) {
        List<List<Answer>> all = new ArrayList<>();
        evaluations.forEach(e -> all.add(new ArrayList<>(e.rows().stream()
                .map(_ -> (Answer) new Answer.Failed("not run"))
                .toList())));
        List<Task> tasks = new ArrayList<>();
        List<List<Answer>> places = new ArrayList<>();
        for (int i = 0; i < evaluations.size(); i++) {
            for (Groups group : Groups.of(evaluations.get(i))) {
                Outcome<Task> task = task(group, evaluations.get(i));
                List<Answer> answers = all.get(i);
                if (task.isPresent()) {
                    tasks.add(task.get());
                    places.add(answers);
                } else {
                    Answer said = new Answer.NotSaid(task.problems().getFirst().what());
                    group.rows().forEach(r -> answers.set(r, said));
                }
            }
        }
        for (int from = 0; from < tasks.size(); ) {
            from = runFrom(from, tasks, places);
        }
        return all;
    }

    /// Runs the tasks from the one with that number on, and gives the number of the first that was not reached.
    private int runFrom(int from, List<Task> tasks, List<List<Answer>> places) {
        List<Task> left = tasks.subList(from, tasks.size());
        List<String> lines = new ArrayList<>();
        String why = process(file -> write(left, file), lines);
        int done = Math.min(lines.size(), left.size());
        for (int t = 0; t < done; t++) {
            put(left.get(t), answers(lines.get(t), left.get(t)), places.get(from + t));
        }
        if (done < left.size()) {
            Task broken = left.get(done);
            Answer failed = new Answer.Failed(why);
            put(broken, broken.group().rows().stream().map(_ -> failed).toList(), places.get(from + done));
            done++;
        }
        return from + done;
    }

    private List<Answer> answers(String line, Task task) {
        try {
            return read(line, task);
        } catch (IOException e) {
            Answer failed = new Answer.Failed("the answers cannot be read: " + e.getMessage());
            return task.group().rows().stream().map(_ -> failed).toList();
        }
    }

    private static void put(Task task, List<Answer> answers, List<Answer> places) {
        List<Integer> rows = task.group().rows();
        for (int i = 0; i < rows.size(); i++) {
            places.set(rows.get(i), i < answers.size() ? answers.get(i) : new Answer.Failed("no answer"));
        }
    }

    /// The definition, called with columns; a list, or a null for a fixed parameter, is only possible in an expression.
    private Outcome<Task> task(Groups group, Evaluation evaluation) {
        Definition fix = group.fix();
        boolean nullFixed = false;
        for (int p = 0; p < fix.parameters().size(); p++) {
            Parameter parameter = fix.parameters().get(p);
            nullFixed |= parameter.type().isFixed()
                    || parameter.fixed() && group.first().get(p).value() == null;
        }
        Outcome<String> definition = language.definition(fix, "");
        if (definition.isPresent() && !nullFixed && !fix.parameters().getFirst().fixed()) {
            return Outcome.of(new Task(group, evaluation, definition.get(), functionName(fix), true));
        }
        Outcome<String> code = language.expression(Inliner.call(fix, group.arguments()));
        return code.map(c -> new Task(group, evaluation, prelude(c), c, false));
    }

    @Override
    public Answer.OfJob run(JobCode job, Map<String, List<List<@Nullable String>>> rows) {
        return runAll(List.of(new Job(job, rows))).getFirst();
    }

    @Override
    public List<Answer.OfJob> runAll(List<Job> jobs) {
        List<Answer.OfJob> answers = new ArrayList<>();
        List<String> tasks = new ArrayList<>();
        List<Integer> places = new ArrayList<>();
        for (Job job : jobs) {
            Outcome<String> task = task(job);
            answers.add(new Answer.OfJob.Unsaid(
                    task.problems().stream().map(Problem::what).toList()));
            task.value().ifPresent(t -> {
                places.add(answers.size() - 1);
                tasks.add(t);
            });
        }
        for (int from = 0; from < tasks.size(); ) {
            List<String> left = tasks.subList(from, tasks.size());
            List<String> lines = new ArrayList<>();
            String why = process(file -> writeJobs(left, file), lines);
            for (int t = 0; t < Math.min(lines.size() + 1, left.size()); t++) {
                int place = places.get(from++);
                answers.set(
                        place,
                        t < lines.size()
                                ? answer(lines.get(t), jobs.get(place).code())
                                : new Answer.OfJob.Stopped(why));
            }
        }
        return answers;
    }

    private Outcome<String> task(Job job) {
        return language.job(job.code()).then(code -> {
            try {
                return Outcome.of(task(job, code));
            } catch (ProblemException e) {
                return Outcome.failed(e.problem());
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        });
    }

    private Answer.OfJob answer(String line, JobCode job) {
        try {
            return read(line, job);
        } catch (IOException e) {
            return new Answer.OfJob.Stopped("the answers cannot be read: " + e.getMessage());
        }
    }

    /// Writes the file of tasks.
    private interface Tasks {
        void write(Path file) throws IOException;
    }

    /// Runs the tasks and collects the lines of those that were done; says why not all of them were.
    private String process(Tasks tasks, List<String> lines) {
        try (TemporaryFolder folder = TemporaryFolder.make(language.id())) {
            return process(tasks, lines, folder.path());
        } catch (IOException e) {
            return language.title() + " could not be run: " + e.getMessage();
        }
    }

    private String process(Tasks tasks, List<String> lines, Path folder) throws IOException {
        presence();
        Path script = folder.resolve(script());
        try (InputStream in = Objects.requireNonNull(ScriptEngine.class.getResourceAsStream(script()))) {
            Files.copy(in, script);
        }
        Path file = folder.resolve("tasks");
        Path answers = Files.createFile(folder.resolve("answers"));
        Path messages = folder.resolve("messages");
        tasks.write(file);
        ProcessBuilder builder = new ProcessBuilder(
                        program, alone(), script.toString(), file.toString(), answers.toString())
                .directory(folder.toFile())
                .redirectErrorStream(true)
                .redirectOutput(messages.toFile());
        builder.environment().put("LC_ALL", "C.UTF-8");
        Process process = builder.start();
        String why = wait(process);
        Stop.check();
        lines.addAll(Files.readAllLines(answers));
        if (!why.isEmpty()) {
            return why;
        }
        String last =
                Files.readString(messages).lines().filter(l -> !l.isBlank()).reduce("", (_, b) -> b);
        return program + " ended with " + process.exitValue() + ": " + last;
    }

    private String wait(Process process) {
        Stop.began(process::destroyForcibly);
        try {
            if (!process.waitFor(seconds, TimeUnit.SECONDS)) {
                process.destroyForcibly().waitFor();
                return program + " did not end within " + seconds + " seconds and was stopped";
            }
            return "";
        } catch (InterruptedException e) {
            process.destroyForcibly();
            Thread.currentThread().interrupt();
            return "stopped";
        } finally {
            Stop.ended();
        }
    }
}
