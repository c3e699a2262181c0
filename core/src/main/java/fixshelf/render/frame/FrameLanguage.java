package fixshelf.render.frame;

import fixshelf.language.emulation.Inliner;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.Parameter;
import fixshelf.problem.Outcome;
import fixshelf.problem.ProblemException;
import fixshelf.render.Calls;
import fixshelf.render.JobCode;
import fixshelf.render.Language;
import fixshelf.table.Relation;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Stream;

/// What data frame languages have in common: fixes are functions that call each other, after a prelude.
public abstract class FrameLanguage implements Language {

    @Override
    public boolean stopsAtChecks() {
        return true;
    }

    /// One fix as a function, without the fixes that it calls.
    protected abstract String function(Definition fix, String about);

    /// An expression over the columns of a data frame.
    protected abstract String written(Expr expr);

    /// What has to stand before a piece of code.
    protected abstract String before(String code);

    /// What stands between two functions.
    protected abstract String between();

    @Override
    public Outcome<String> expression(Expr expr) {
        return outcome(() -> written(Inliner.inline(expr, Map.of())));
    }

    @Override
    public Outcome<String> call(Definition fix, List<Expr> arguments) {
        return outcome(() -> written(new Expr.FixCall(fix, arguments)));
    }

    @Override
    public Outcome<String> definition(Definition fix, String about) {
        return outcome(() -> {
            List<String> functions = new ArrayList<>();
            for (Definition definition : Calls.neededBy(fix)) {
                boolean asked = definition.name().equals(fix.name());
                functions.add(function(definition, asked ? Calls.about(fix, about) : ""));
            }
            return together(functions);
        });
    }

    @Override
    public String module(List<Described> fixes) {
        Map<String, String> abouts = new LinkedHashMap<>();
        fixes.forEach(f -> abouts.put(f.fix().name(), Calls.about(f.fix(), f.about())));
        Map<String, String> functions = new LinkedHashMap<>();
        for (Described described : fixes) {
            for (Definition fix : Calls.neededBy(described.fix())) {
                functions.computeIfAbsent(fix.name(), name -> function(fix, abouts.getOrDefault(name, "")));
            }
        }
        return together(List.copyOf(functions.values()));
    }

    /// The job as a function, over a table with the columns of its source; `inJob` says what stands for a new value.
    protected abstract Outcome<String> jobFunction(JobCode job, String name, Function<Expr, Expr> inJob);

    private boolean canBeCalled(Expr.FixCall call) {
        for (int i = 0; i < call.arguments().size(); i++) {
            Parameter parameter = call.fix().parameters().get(i);
            Expr argument = call.arguments().get(i);
            boolean usual = parameter.fallback().map(argument::equals).orElse(false);
            boolean known = argument instanceof Expr.Literal(Object value, Type _) && value != null;
            if (parameter.type().isFixed() && !usual || i > 0 && parameter.fixed() && !known) {
                return false;
            }
        }
        return definition(call.fix(), "").isPresent();
    }

    /// Fixes are called by name; those that cannot be functions are written out.
    @Override
    public Outcome<String> job(JobCode job) {
        Map<String, String> functions = new LinkedHashMap<>();
        Map<Expr.FixCall, Boolean> called = new HashMap<>();
        Outcome<String> whole = jobFunction(job, jobName(job), value -> {
            if (!(value instanceof Expr.FixCall call)
                    || !called.computeIfAbsent(withoutColumn(call), this::canBeCalled)) {
                return Inliner.inline(value, Map.of());
            }
            Calls.neededBy(call.fix()).forEach(f -> functions.computeIfAbsent(f.name(), _ -> function(f, "")));
            return call;
        });
        return whole.map(code -> {
            List<String> all = new ArrayList<>(functions.values());
            all.add(code);
            return together(all);
        });
    }

    /// The call with nothing in place of its column: those of one line are alike, and are asked about once.
    private static Expr.FixCall withoutColumn(Expr.FixCall call) {
        List<Expr> arguments = new ArrayList<>(call.arguments());
        arguments.set(0, Expr.Literal.NULL);
        return new Expr.FixCall(call.fix(), arguments);
    }

    /// The name of the job's function: its own, but where a fix that it calls is called so.
    protected static String jobName(JobCode job) {
        boolean taken = job.lines().stream()
                .flatMap(l -> l.step().after().parts().stream())
                .flatMap(r -> r instanceof Relation.Compute compute ? compute.cells().stream() : Stream.of())
                .flatMap(
                        c -> c.value() instanceof Expr.FixCall call ? Calls.neededBy(call.fix()).stream() : Stream.of())
                .anyMatch(f -> f.name().equals(job.name()));
        return taken ? job.name() + "_job" : job.name();
    }

    private String together(List<String> functions) {
        String code = String.join(between(), functions);
        return before(code) + between() + code;
    }

    /// Work that can be refused with a [ProblemException].
    interface Work {
        String code();
    }

    protected static Outcome<String> outcome(Work work) {
        try {
            return Outcome.of(work.code());
        } catch (ProblemException e) {
            return Outcome.failed(e.problem());
        }
    }
}
