package fixshelf.desktop.workbench;

import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;

/// The thread of a test in place of the interface's: what is to be done on the screen waits until the test does it.
public final class TestScreen implements Background.Screen {
    private static final long MOST_SECONDS = 120;

    private final Thread thread = Thread.currentThread();
    private final BlockingQueue<Runnable> waiting = new LinkedBlockingQueue<>();

    @Override
    public boolean isHere() {
        return Thread.currentThread() == thread;
    }

    @Override
    public void later(Runnable work) {
        waiting.add(work);
    }

    /// Does what is to be done until nothing runs any more, and nothing waits.
    public void settle(Background background) {
        until(() -> background.isIdle() && waiting.isEmpty());
    }

    /// Does what is to be done until something holds.
    public void until(BooleanSupplier holds) {
        long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(MOST_SECONDS);
        while (!holds.getAsBoolean()) {
            if (System.nanoTime() > end) {
                throw new AssertionError("it did not come to rest");
            }
            try {
                Runnable next = waiting.poll(20, TimeUnit.MILLISECONDS);
                if (next != null) {
                    next.run();
                }
            } catch (InterruptedException e) {
                throw new AssertionError(e);
            }
        }
    }
}
