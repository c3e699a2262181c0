package fixshelf.work;

import fixshelf.fetch.Consent;
import fixshelf.language.tree.Names;
import fixshelf.plan.InBraces;
import fixshelf.plan.Operation;
import fixshelf.plan.Plan;
import fixshelf.plan.Step;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.Problem.Where;
import fixshelf.render.Language;
import fixshelf.render.Languages;
import fixshelf.render.sql.SqlLanguage;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.Shelf;
import fixshelf.source.SourceFile;
import fixshelf.work.PlannedJob.OfLine;
import fixshelf.work.PlannedJob.Target;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.IntPredicate;
import java.util.stream.Stream;

/// Where the outputs of a job go, found out when it is planned.
final class JobTargets {
    private JobTargets() {}

    /// The servers that a job writes to, and that are not allowed yet.
    static List<Consent.Place> asked(Shelf shelf, JobPage job) {
        Map<String, String> values = PlannedJob.values(shelf, job, Map.of());
        return job.outputs().stream()
                .flatMap(o -> Placeholders.fill(o.path(), values, Where.nowhere(job.name())).value().stream())
                .flatMap(p -> OutputTables.address(p).stream())
                .map(a -> a.place().toWrite())
                .filter(p -> !Consent.isGiven(shelf.root(), p))
                .toList();
    }

    private static OfLine result(Plan plan) {
        return new OfLine(
                plan.resultLine(), new Operation.Report("", plan.result().result(), "rows"));
    }

    /// The report that an output writes. A line with a problem gives its reports when that is mended.
    private static Outcome<Optional<OfLine>> report(JobPage.OfReport of, Plan plan, Where where, IntPredicate waiting) {
        Optional<Step> step = plan.steps().stream()
                .filter(s -> JobPage.isNamed(s.line(), s.number(), of.line()))
                .findFirst();
        List<String> known = step.map(s -> Stream.concat(s.reports().stream(), OfLine.left(plan, s).stream())
                        .map(Operation.Report::name)
                        .toList())
                .orElse(List.of());
        if (of.report().isEmpty() && step.isPresent()) {
            Step line = step.get();
            return Outcome.of(Optional.of(new OfLine(line.number(), new Operation.Report("", line.result(), "rows"))));
        }
        Optional<OfLine> found = step.flatMap(s -> s.reports().stream()
                .filter(r -> r.name().equals(of.report()))
                .findFirst()
                .or(() -> of.report().equals(OfLine.LEFT) ? OfLine.left(plan, s) : Optional.empty())
                .map(r -> new OfLine(s.number(), r)));
        return found.isPresent() || step.filter(s -> waiting.test(s.number())).isPresent()
                ? Outcome.of(found)
                : Outcome.failed(Problem.error(
                        Code.NO_SUCH,
                        where,
                        step.isEmpty()
                                ? "There is no line " + of.line() + " in this job."
                                : "Line " + of.line() + " gives no report " + of.report() + ".",
                        step.isEmpty()
                                ? "Give a line a `name`, or write its number."
                                : known.isEmpty() ? "It gives none." : "It gives " + String.join(", ", known) + "."));
    }

    /// A target with the text of its view, or refused where the language cannot say it.
    private static Target defined(
            Shelf shelf, JobPage job, SourceFile source, Plan plan, JobPage.Output output, Target target) {
        String id = output.language().isEmpty() ? "duckdb" : output.language();
        Optional<SqlLanguage> language =
                Languages.find(id).filter(SqlLanguage.class::isInstance).map(SqlLanguage.class::cast);
        if (language.isEmpty()) {
            List<String> known = Languages.ALL.stream()
                    .filter(SqlLanguage.class::isInstance)
                    .map(Language::id)
                    .toList();
            return target.refused(Optional.of(Problem.about(
                    Code.BAD_FIELD,
                    job.name(),
                    "There is no view in " + id + ".",
                    Names.suggest(id, known, "Known: " + String.join(", ", known) + "."))));
        }
        Outcome<String> view =
                language.get().view(new PlannedJob(job, source, plan, List.of(), Map.of(), List.of()).code(shelf));
        return view.isPresent()
                ? target.defined(view.get())
                : target.refused(Optional.of(Problem.about(
                        Code.CANNOT_SAY, job.name(), view.problems().getFirst().what(), "Choose another language.")));
    }

    /// The targets of all outputs, in their order; those that must not be written say why. The plan stands whatever is
    /// wrong with an output.
    ///
    /// @param set the names whose values the user gives for this run
    /// @param waiting whether a line, by its number, has a problem
    static Outcome<List<Target>> of(
            Shelf shelf,
            JobPage job,
            SourceFile source,
            Plan plan,
            Map<String, String> values,
            Set<String> set,
            IntPredicate waiting) {
        List<Path> read = new ArrayList<>(OutputPlace.readBy(shelf));
        read.addAll(source.files());
        read.add(source.file());
        List<Target> all = new ArrayList<>();
        List<Problem> problems = new ArrayList<>();
        for (JobPage.Output output : job.outputs()) {
            Where where = new Where(job.source(), output.span());
            Outcome<Optional<OfLine>> of = output.of().isEmpty()
                    ? Outcome.of(
                            plan.resultLine() == plan.steps().size() ? Optional.empty() : Optional.of(result(plan)))
                    : report(output.of().get(), plan, where, waiting);
            Outcome<String> path = Placeholders.fill(output.path(), values, where)
                    .then(p -> OutputTables.address(p).isPresent() ? Outcome.of(p) : Placeholders.path(p, where));
            problems.addAll(of.problems());
            problems.addAll(path.problems());
            if (!of.isPresent() || !path.isPresent()) {
                Target nowhere = new Target(shelf.root().resolve("output"), false);
                all.add(nowhere.refused(Optional.of(problems.getLast())));
                continue;
            }
            boolean byUser = InBraces.names(output.path()).stream().anyMatch(set::contains);
            Target target = OutputTables.target(shelf, job, output, path.get(), values)
                    .orElseGet(() -> inFile(shelf, output, path.get(), read, byUser))
                    .in(output.sheet())
                    .told(output.text())
                    .of(of.get());
            all.add(
                    target.form() == OutputForm.DEFINITION
                            ? defined(shelf, job, source, plan, output, target)
                            : target);
        }
        return Outcome.of(all, problems);
    }

    private static Target inFile(Shelf shelf, JobPage.Output output, String path, List<Path> read, boolean byUser) {
        Target target =
                OutputTables.inFile(new Target(shelf.root().resolve(path).normalize(), output.replace()), output);
        return target.objection().isPresent()
                ? target
                : target.refused(OutputPlace.objection(shelf.root(), target, read, byUser));
    }
}
