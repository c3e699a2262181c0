package fixshelf.engine;

import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Supplier;

/// The way to stop work from another thread; several threads may work under one. Work done [#during] a stop asks it
/// before each statement, and what runs is ended at once: a statement is cancelled, a process is destroyed.
public final class Stop {
    private static final ScopedValue<Stop> CURRENT = ScopedValue.newInstance();

    private final Map<Thread, Runnable> running = new ConcurrentHashMap<>();
    private volatile boolean stopped;

    /// Does `work`, which this stop can end.
    public <T> T during(Supplier<T> work) {
        return ScopedValue.where(CURRENT, this).call(work::get);
    }

    /// Ends what runs, and everything that would come after it. May be called from any thread, more than once.
    public void now() {
        stopped = true;
        running.values().forEach(Runnable::run);
    }

    public boolean isStopped() {
        return stopped;
    }

    /// The stop that this thread works under, or one that nobody knows.
    public static Stop currentOrNew() {
        return current().orElseGet(Stop::new);
    }

    private static Optional<Stop> current() {
        return CURRENT.isBound() ? Optional.of(CURRENT.get()) : Optional.empty();
    }

    /// Whether the work of this thread was asked to stop.
    public static boolean isAsked() {
        return current().map(Stop::isStopped).orElse(false);
    }

    /// Ends this thread's work here if it was asked to stop; for loops that run no statement.
    public static void check() {
        if (isAsked()) {
            throw new ProblemException(problem());
        }
    }

    /// Names how to end what begins to run now; `ended` is to be called after it.
    public static void began(Runnable end) {
        current().ifPresent(stop -> {
            stop.running.put(Thread.currentThread(), end);
            if (stop.stopped) {
                throw new ProblemException(problem());
            }
        });
    }

    public static void ended() {
        current().ifPresent(stop -> stop.running.remove(Thread.currentThread()));
    }

    static Problem problem() {
        return Problem.about(Code.CANCELLED, "run", "Stopped, as you asked.", "Start it again when you like.");
    }
}
