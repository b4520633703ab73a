package dev.trellisgorge.cluster;

/** What an error of the cluster says, in one line. */
final class Said {
    private Said() {
    }

    static String of(Throwable wrong) {
        String first = String.valueOf(wrong.getMessage()).lines().findFirst().orElse("");
        return first.replaceFirst("^\\[[A-Z_.]+\\] ", "").replaceFirst(" SQLSTATE: \\w+$", "").strip();
    }
}
