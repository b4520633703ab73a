package dev.trellisgorge.api;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import java.lang.reflect.Constructor;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Method;
import java.lang.reflect.Modifier;
import java.lang.reflect.RecordComponent;
import java.net.URI;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.Stream;
import org.testng.annotations.Test;

/** A null is refused where it is given, and not where it would be read later. */
public class NullTest {

    @Test
    public void recordsRefuseNullForEachOfTheirComponents() throws Exception {
        int refused = 0;
        List<String> taken = new ArrayList<>();
        for (Class<?> type : publicTypes()) {
            if (type.isRecord()) {
                Constructor<?> made = type.getDeclaredConstructor(Arrays.stream(type.getRecordComponents()).map(RecordComponent::getType).toArray(Class<?>[]::new));
                for (int i = 0; i < made.getParameterCount(); i++) {
                    if (!made.getParameterTypes()[i].isPrimitive()) {
                        Object[] arguments = Arrays.stream(made.getParameterTypes()).map(NullTest::sample).toArray();
                        arguments[i] = null;
                        if (refuses(made, arguments)) {
                            refused++;
                        } else {
                            taken.add(type.getName() + " takes no " + type.getRecordComponents()[i].getName());
                        }
                    }
                }
            }
        }
        assertThat(taken).isEmpty();
        assertThat(refused).isGreaterThan(150);
    }

    @Test
    public void factoriesRefuseNull() throws Exception {
        List<String> taken = new ArrayList<>();
        int called = 0;
        for (Class<?> type : publicTypes()) {
            for (Method method : type.getDeclaredMethods()) {
                boolean factory = Modifier.isPublic(method.getModifiers()) && Modifier.isStatic(method.getModifiers()) && method.getReturnType() == type;
                for (int i = 0; factory && i < method.getParameterCount(); i++) {
                    if (!method.getParameterTypes()[i].isPrimitive()) {
                        Object[] arguments = Arrays.stream(method.getParameterTypes()).map(NullTest::sample).toArray();
                        arguments[i] = null;
                        called++;
                        if (!refuses(method, arguments)) {
                            taken.add(method.toString());
                        }
                    }
                }
            }
        }
        assertThat(taken).isEmpty();
        assertThat(called).isGreaterThan(30);
    }

    @Test
    public void messageOfARefusalNamesWhatIsMissing() {
        assertThatThrownBy(() -> new dev.trellisgorge.pattern.Columns(null, Optional.empty(), Optional.empty())).isInstanceOf(NullPointerException.class).hasMessage("value");
    }

    private static boolean refuses(java.lang.reflect.Executable call, Object[] arguments) throws Exception {
        try {
            if (call instanceof Constructor<?> constructor) {
                constructor.newInstance(arguments);
            } else {
                ((Method) call).invoke(null, arguments);
            }
            return false;
        } catch (InvocationTargetException e) {
            if (e.getCause() instanceof NullPointerException) {
                return true;
            }
            throw new AssertionError(call + " with " + Arrays.toString(arguments), e.getCause());
        }
    }

    /** A value of a type that most calls take. */
    private static Object sample(Class<?> type) {
        Object plain = plain(type);
        if (plain != null) {
            return plain;
        }
        try {
            if (type.isEnum()) {
                return type.getEnumConstants()[0];
            } else if (type.isArray()) {
                return java.lang.reflect.Array.newInstance(type.getComponentType(), 0);
            } else if (type.isSealed() && type.isInterface()) {
                return sample(type.getPermittedSubclasses()[0]);
            } else if (type.isRecord()) {
                Class<?>[] components = Arrays.stream(type.getRecordComponents()).map(RecordComponent::getType).toArray(Class<?>[]::new);
                return type.getDeclaredConstructor(components).newInstance(Arrays.stream(components).map(NullTest::sample).toArray());
            }
            for (Method method : type.getDeclaredMethods()) {
                if (Modifier.isPublic(method.getModifiers()) && Modifier.isStatic(method.getModifiers()) && method.getReturnType() == type && method.getParameterCount() <= 1) {
                    return method.invoke(null, Arrays.stream(method.getParameterTypes()).map(NullTest::sample).toArray());
                }
            }
            return null;
        } catch (ReflectiveOperationException e) {
            return null;
        }
    }

    private static Object plain(Class<?> type) {
        Map<Class<?>, Object> known = Map.ofEntries(Map.entry(String.class, "x"), Map.entry(Object.class, 1.0), Map.entry(Formula.class, Formulas.number(1)), Map.entry(List.class, List.of()),
                Map.entry(Map.class, Map.of()), Map.entry(Set.class, Set.of()), Map.entry(Optional.class, Optional.empty()), Map.entry(OptionalInt.class, OptionalInt.empty()),
                Map.entry(OptionalDouble.class, OptionalDouble.empty()), Map.entry(int.class, 1), Map.entry(double.class, 0.5), Map.entry(boolean.class, false),
                Map.entry(long.class, 1L), Map.entry(Path.class, Path.of("x")));
        return known.get(type);
    }

    private static boolean isPublic(Class<?> type) {
        return type == null || Modifier.isPublic(type.getModifiers()) && isPublic(type.getEnclosingClass());
    }

    /** Every public type of core, and the public ones inside them. */
    private static List<Class<?>> publicTypes() throws Exception {
        Path root = Path.of(Formula.class.getProtectionDomain().getCodeSource().getLocation().toURI());
        if (Files.isRegularFile(root)) {
            root = FileSystems.newFileSystem(URI.create("jar:" + root.toUri()), Map.of()).getPath("/");
        }
        List<Class<?>> types = new ArrayList<>();
        try (Stream<Path> files = Files.walk(root)) {
            for (Path file : files.filter(path -> path.toString().endsWith(".class") && !path.toString().endsWith("-info.class")).toList()) {
                Class<?> type = Class.forName(root.relativize(file).toString().replace('/', '.').replaceAll("\\.class$", ""));
                if (isPublic(type)) {
                    types.add(type);
                }
            }
        }
        assertThat(types.size()).isGreaterThan(120);
        return types;
    }
}
