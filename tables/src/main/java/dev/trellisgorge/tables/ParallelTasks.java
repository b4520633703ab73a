package dev.trellisgorge.tables;

import dev.trellisgorge.problem.BadInput;
import java.io.IOException;
import java.nio.channels.ClosedByInterruptException;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;

/** Reads a file by several threads, which divide its parts between them. */
final class ParallelTasks {
    /** The work of each thread. */
    interface Work {
        void run() throws NotPlain, IOException;
    }

    private ParallelTasks() {
    }

    /** Runs the same work in so many threads, until all have ended or this one is interrupted, which is an error. @return whether none of them found what is not plain */
    static boolean isPlain(int threads, Work work) throws IOException {
        ExecutorService all = Executors.newFixedThreadPool(threads, task -> {
            Thread thread = new Thread(task, "text");
            thread.setDaemon(true);
            // what it fails with is thrown where it is awaited; a thread that fails besides, as for memory, has nothing to report
            thread.setUncaughtExceptionHandler((failed, what) -> { });
            return thread;
        });
        try {
            List<Future<?>> waiting = new ArrayList<>();
            for (int i = 0; i < threads; i++) {
                waiting.add(all.submit(() -> {
                    work.run();
                    return null;
                }));
            }
            boolean plain = true;
            for (Future<?> one : waiting) {
                plain = plain && isPlain(one);
            }
            return plain;
        } finally {
            end(all);
        }
    }

    private static boolean isPlain(Future<?> thread) throws IOException {
        try {
            thread.get();
            return true;
        } catch (ExecutionException e) {
            if (e.getCause() instanceof NotPlain) {
                return false;
            } else if (e.getCause() instanceof IOException failed) {
                throw failed;
            } else if (e.getCause() instanceof OutOfMemoryError full) {
                throw full;
            } else if (e.getCause() instanceof BadInput unreadable) {
                throw unreadable;
            }
            throw new IllegalStateException(e.getCause());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new ClosedByInterruptException();
        }
    }

    /** What the threads hold is free again afterwards: whoever tells that memory ended needs some. */
    private static void end(ExecutorService threads) {
        boolean awaited = false;
        while (!awaited) {
            try {
                threads.shutdownNow();
                threads.awaitTermination(1, TimeUnit.MINUTES);
                awaited = true;
            } catch (OutOfMemoryError e) {
                // the threads that still run hold all there is; each is about to end
                Thread.onSpinWait();
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                awaited = true;
            }
        }
    }
}
