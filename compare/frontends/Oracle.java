import com.sun.source.tree.*;
import com.sun.source.util.*;
import java.io.*;
import java.nio.charset.StandardCharsets;
import java.nio.file.*;
import java.util.*;
import javax.lang.model.element.Modifier;
import javax.tools.*;

/**
 * Lists what Java files declare, as the compiler's own parser has it, one JSON object a line.
 * Paths are read from the input. With "time" it only parses them, and prints the seconds.
 */
public class Oracle {
    static PrintStream out;
    static Trees trees;

    public static void main(String[] args) throws Exception {
        out = new PrintStream(new FileOutputStream(FileDescriptor.out), false, "UTF-8");
        List<String> paths = new BufferedReader(new InputStreamReader(System.in, StandardCharsets.UTF_8)).lines().filter(s -> !s.isEmpty()).toList();
        JavaCompiler compiler = ToolProvider.getSystemJavaCompiler();
        StandardJavaFileManager files = compiler.getStandardFileManager(null, null, StandardCharsets.UTF_8);
        boolean timed = args[0].equals("time");
        List<JavaFileObject> texts = new ArrayList<>();
        for (String path : paths) {
            byte[] bytes = Files.readAllBytes(Path.of(path));
            String text = new String(bytes, StandardCharsets.UTF_8);
            if (text.startsWith("\uFEFF")) {
                text = text.substring(1);
            }
            texts.add(new Text(path, text));
        }
        long begun = System.nanoTime();
        for (int i = 0; i < texts.size(); i++) {
            one(compiler, files, (Text) texts.get(i), timed);
        }
        if (timed) {
            out.println((System.nanoTime() - begun) / 1e9);
        }
        out.flush();
    }

    /** A file whose text was read before. */
    static class Text extends SimpleJavaFileObject {
        final String path, text;

        Text(String path, String text) {
            super(Path.of(path).toUri(), Kind.SOURCE);
            this.path = path;
            this.text = text;
        }

        @Override
        public CharSequence getCharContent(boolean ignored) {
            return text;
        }

        @Override
        public boolean isNameCompatible(String name, Kind kind) {
            return true;
        }
    }

    static void one(JavaCompiler compiler, JavaFileManager files, Text file, boolean timed) throws IOException {
        DiagnosticCollector<JavaFileObject> problems = new DiagnosticCollector<>();
        JavacTask task = (JavacTask) compiler.getTask(null, files, problems, List.of("-proc:none"), null, List.of(file));
        CompilationUnitTree unit = task.parse().iterator().next();
        if (timed) {
            return;
        }
        for (Diagnostic<?> d : problems.getDiagnostics()) {
            if (d.getKind() == Diagnostic.Kind.ERROR) {
                out.println("{\"file\":" + quoted(file.path) + ",\"refused\":true}");
                return;
            }
        }
        trees = Trees.instance(task);
        TreePath root = new TreePath(unit);
        for (Tree t : unit.getTypeDecls()) {
            if (t instanceof ClassTree c) {
                type(file, unit, new TreePath(root, c), c, "", true);
            }
        }
    }

    static void type(Text file, CompilationUnitTree unit, TreePath path, ClassTree c, String scope, boolean seen) {
        boolean open = seen && (c.getModifiers().getFlags().contains(Modifier.PUBLIC) || c.getModifiers().getFlags().contains(Modifier.PROTECTED));
        write(file, unit, path, c.getSimpleName().toString(), scope, null, open);
        String inner = scope.isEmpty() ? c.getSimpleName().toString() : scope + "." + c.getSimpleName();
        boolean contract = c.getKind() == Tree.Kind.INTERFACE || c.getKind() == Tree.Kind.ANNOTATION_TYPE;
        for (Tree member : c.getMembers()) {
            TreePath at = new TreePath(path, member);
            if (member instanceof ClassTree t) {
                type(file, unit, at, t, inner, contract ? open && !t.getModifiers().getFlags().contains(Modifier.PRIVATE) : open);
            } else if (member instanceof MethodTree m) {
                if (trees.getSourcePositions().getEndPosition(unit, m) < 0) {
                    continue; // made by the compiler
                }
                List<String> params = new ArrayList<>();
                for (VariableTree p : m.getParameters()) {
                    params.add(p.getName().toString());
                }
                String name = m.getName().contentEquals("<init>") ? c.getSimpleName().toString() : m.getName().toString();
                write(file, unit, at, name, inner, params, open && shown(m.getModifiers(), contract));
            } else if (member instanceof VariableTree v) {
                write(file, unit, at, v.getName().toString(), inner, null, open && shown(v.getModifiers(), contract));
            }
        }
    }

    static boolean shown(ModifiersTree m, boolean contract) {
        Set<Modifier> flags = m.getFlags();
        return flags.contains(Modifier.PUBLIC) || flags.contains(Modifier.PROTECTED) || contract && !flags.contains(Modifier.PRIVATE);
    }

    static void write(Text file, CompilationUnitTree unit, TreePath path, String name, String scope, List<String> params, boolean open) {
        int at = ((com.sun.tools.javac.tree.JCTree) path.getLeaf()).pos;
        if (path.getLeaf() instanceof ClassTree c) {
            at = nameFrom(file.text, at, name, (int) trees.getSourcePositions().getStartPosition(unit, c.getModifiers()), c);
        }
        if (path.getLeaf() instanceof VariableTree v) { // of an annotated constant the compiler tells where the annotation is
            for (AnnotationTree a : v.getModifiers().getAnnotations()) {
                int end = (int) trees.getSourcePositions().getEndPosition(unit, a);
                if (end > at) {
                    at = end + Math.max(0, file.text.substring(end).indexOf(name));
                }
            }
        }
        StringBuilder b = new StringBuilder("{\"file\":" + quoted(file.path) + ",\"line\":" + unit.getLineMap().getLineNumber(at) + ",\"name\":" + quoted(name) + ",\"scope\":" + quoted(scope));
        if (params == null) {
            b.append(",\"params\":null");
        } else {
            b.append(",\"params\":[");
            for (int i = 0; i < params.size(); i++) {
                b.append(i > 0 ? "," : "").append(quoted(params.get(i)));
            }
            b.append("]");
        }
        String doc = trees.getDocComment(path); // a row of slashes, which it takes for one, has no word
        out.println(b.append(",\"documented\":").append(doc != null && !doc.replace("/", "").isBlank()).append(",\"public\":").append(open).append("}"));
    }

    /** The place of a type's name behind that of its word or modifiers. */
    static int nameFrom(String text, int at, String name, int from, ClassTree c) {
        String word = switch (c.getKind()) {
            case INTERFACE, ANNOTATION_TYPE -> "interface";
            case ENUM -> "enum";
            case RECORD -> "record";
            default -> "class";
        };
        var found = java.util.regex.Pattern.compile("\\b" + word + "\\s+" + java.util.regex.Pattern.quote(name) + "\\b").matcher(text);
        return found.find(Math.max(0, Math.min(at, text.length()))) ? found.end() - 1 : at;
    }

    static String quoted(String s) {
        StringBuilder b = new StringBuilder("\"");
        for (char c : s.toCharArray()) {
            if (c == '"' || c == '\\') {
                b.append('\\').append(c);
            } else if (c < ' ') {
                b.append(String.format("\\u%04x", (int) c));
            } else {
                b.append(c);
            }
        }
        return b.append('"').toString();
    }
}
