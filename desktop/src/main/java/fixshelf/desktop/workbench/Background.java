package fixshelf.desktop.workbench;

import fixshelf.engine.Stop;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.application.Platform;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;

/// Work off the interface's thread. Of several requests under one name only the newest is answered; what comes late
/// is dropped. Work of one lane runs in order.
public final class Background implements AutoCloseable {
    private static final int MOST_WAIT_SECONDS = 60;

    /// The thread of the interface.
    public interface Screen {
        /// Whether the caller runs on it.
        boolean isHere();

        /// Does something on it, soon.
        void later(Runnable work);
    }

    private static final Screen TOOLKIT = new Screen() {
        @Override
        public boolean isHere() {
            return Platform.isFxApplicationThread();
        }

        @Override
        public void later(Runnable work) {
            Platform.runLater(work);
        }
    };

    private final Screen screen;
    private final Map<String, ScheduledExecutorService> lanes = new ConcurrentHashMap<>();
    private final Map<String, AtomicLong> newest = new ConcurrentHashMap<>();
    private final List<Runnable> atEnd = new CopyOnWriteArrayList<>();
    private volatile boolean closed;
    private final AtomicInteger open = new AtomicInteger();
    private final Set<Stop> stops = ConcurrentHashMap.newKeySet();
    private final ReadOnlyStringWrapper busy = new ReadOnlyStringWrapper("");
    private final ReadOnlyStringWrapper fault = new ReadOnlyStringWrapper("");

    public Background() {
        this(TOOLKIT);
    }

    public Background(Screen screen) {
        this.screen = screen;
    }

    /// A request: its lane, its name, and how long to wait for a newer one, in milliseconds.
    public record Request(String lane, String name, int waitMillis) {
        public static Request now(String lane, String name) {
            return new Request(lane, name, 0);
        }
    }

    /// What is being done, for the status line; empty when nothing is.
    public ReadOnlyStringProperty busyProperty() {
        return busy.getReadOnlyProperty();
    }

    /// Whether nothing is waiting or running.
    public boolean isIdle() {
        return open.get() == 0;
    }

    /// What failed last, in words; empty when nothing did since.
    public ReadOnlyStringProperty faultProperty() {
        return fault.getReadOnlyProperty();
    }

    /// Does `work` in the lane, then hands its result to `done` on the interface's thread.
    public <T> void ask(Request request, Supplier<T> work, Consumer<T> done) {
        ask(request, work, done, _ -> {});
    }

    /// As [#ask], and tells `failed` why there will be no result; the fault is shown in any case.
    public <T> void ask(Request request, Supplier<T> work, Consumer<T> done, Consumer<String> failed) {
        if (closed) {
            return;
        }
        AtomicLong counter = newest.computeIfAbsent(request.name(), _ -> new AtomicLong());
        long mine = counter.incrementAndGet();
        open.incrementAndGet();
        lane(request.lane())
                .schedule(
                        () -> {
                            if (counter.get() != mine) {
                                open.decrementAndGet();
                                return;
                            }
                            screen.later(() -> busy.set(request.name()));
                            Stop stop = new Stop();
                            stops.add(stop);
                            try {
                                T result = stop.during(work);
                                screen.later(() -> deliver(counter, mine, result, done));
                            } catch (RuntimeException | StackOverflowError | OutOfMemoryError e) {
                                System.getLogger(Background.class.getName())
                                        .log(System.Logger.Level.ERROR, request.name(), e);
                                screen.later(() -> failed(request, e, failed));
                            } finally {
                                stops.remove(stop);
                            }
                        },
                        request.waitMillis(),
                        TimeUnit.MILLISECONDS);
    }

    /// Ends all that runs now; each piece of work says that it was stopped.
    public void stop() {
        stops.forEach(Stop::now);
    }

    private void failed(Request request, Throwable why, Consumer<String> failed) {
        String words = "A fault of the program while " + request.name() + ": "
                + (why.getMessage() == null ? why.getClass().getSimpleName() : why.getMessage());
        try {
            fault.set(words);
            failed.accept(words);
        } finally {
            finished();
        }
    }

    private <T> void deliver(AtomicLong counter, long mine, T result, Consumer<T> done) {
        try {
            if (counter.get() == mine) {
                done.accept(result);
            }
        } finally {
            finished();
        }
    }

    private void finished() {
        if (open.decrementAndGet() == 0) {
            busy.set("");
        }
    }

    private ScheduledExecutorService lane(String name) {
        return lanes.computeIfAbsent(
                name,
                n -> Executors.newSingleThreadScheduledExecutor(work -> {
                    Thread thread = new Thread(work, "fixshelf " + n);
                    thread.setDaemon(true);
                    return thread;
                }));
    }

    /// Runs something on the interface's thread, now or soon.
    public void onScreen(Runnable work) {
        if (screen.isHere()) {
            work.run();
        } else {
            screen.later(work);
        }
    }

    /// What is to be done once no work runs any more: rows that were staged are let go.
    public void atEnd(Runnable letGo) {
        atEnd.add(letGo);
    }

    @Override
    public void close() {
        closed = true;
        stop();
        lanes.values().forEach(ScheduledExecutorService::shutdownNow);
        Thread.ofPlatform().daemon().name("fixshelf end").start(() -> {
            lanes.values().forEach(Background::awaitEnd);
            atEnd.forEach(Runnable::run);
        });
    }

    private static void awaitEnd(ScheduledExecutorService lane) {
        try {
            lane.awaitTermination(MOST_WAIT_SECONDS, TimeUnit.SECONDS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
