package dev.trellisgorge.cli;

import picocli.CommandLine.IVersionProvider;

/** The version, as the build wrote it into the jar. */
final class Version implements IVersionProvider {
    @Override
    public String[] getVersion() {
        String version = Gorge.class.getPackage().getImplementationVersion();
        return new String[] {"gorge " + (version == null ? "(not packaged)" : version)};
    }
}
