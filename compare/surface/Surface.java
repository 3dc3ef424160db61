import com.sun.source.util.*;
import java.io.*;
import java.nio.charset.StandardCharsets;
import java.nio.file.*;
import java.util.*;
import java.util.stream.*;
import javax.lang.model.element.*;
import javax.lang.model.util.Elements;
import javax.tools.*;

/**
 * Lists what users can name of modules of the language's own library, as the compiler has it: the
 * types of the packages that each exports to all, and their members, with those of bases in
 * the module. The input names folders with the sources of a module each.
 */
public class Surface {
    static final StringBuilder out = new StringBuilder();
    static final Set<String> BROUGHT = Set.of("java.lang.Object", "java.lang.Enum", "java.lang.Record", "java.lang.annotation.Annotation");

    public static void main(String[] args) throws Exception {
        List<String> folders = new BufferedReader(new InputStreamReader(System.in, StandardCharsets.UTF_8)).lines().filter(s -> !s.isEmpty()).toList();
        for (String folder : folders) {
            module(Path.of(folder));
        }
        System.out.write(out.toString().getBytes(StandardCharsets.UTF_8));
        System.out.flush();
    }

    static void module(Path folder) throws IOException {
        String name = folder.getFileName().toString();
        List<Path> files;
        try (Stream<Path> all = Files.walk(folder)) {
            files = all.filter(p -> p.toString().endsWith(".java")).sorted().toList();
        }
        JavaCompiler compiler = ToolProvider.getSystemJavaCompiler();
        StandardJavaFileManager manager = compiler.getStandardFileManager(null, null, StandardCharsets.UTF_8);
        JavacTask task = (JavacTask) compiler.getTask(new StringWriter(), manager, d -> { }, List.of("-proc:none", "--patch-module", name + "=" + folder), null, manager.getJavaFileObjectsFromPaths(files));
        task.parse();
        task.analyze();
        Elements elements = task.getElements();
        ModuleElement module = elements.getModuleElement(name);
        out.append("{\"folder\":").append(quoted(folder.toString())).append(",\"name\":").append(quoted(name)).append(",\"entries\":[");
        String between = "";
        for (ModuleElement.Directive d : module.getDirectives()) {
            if (d instanceof ModuleElement.ExportsDirective e && e.getTargetModules() == null) {
                out.append(between);
                exported(elements, module, e.getPackage());
                between = ",";
            }
        }
        out.append("]}\n");
    }

    static void exported(Elements elements, ModuleElement module, PackageElement of) {
        out.append("{\"as\":").append(quoted(of.getQualifiedName().toString())).append(",\"names\":[");
        String between = "";
        for (Element e : of.getEnclosedElements()) {
            if (e instanceof TypeElement t && t.getModifiers().contains(Modifier.PUBLIC)) {
                out.append(between).append("{\"name\":").append(quoted(t.getSimpleName().toString())).append(",\"kind\":").append(quoted(t.getKind().toString().toLowerCase()));
                out.append(",\"text\":").append(said(elements, t)).append(",\"params\":null,\"members\":[");
                members(elements, module, t);
                out.append("]}");
                between = ",";
            }
        }
        out.append("]}");
    }

    /** The members of a type that users can name, each name once. */
    static void members(Elements elements, ModuleElement module, TypeElement type) {
        Map<String, boolean[]> names = new TreeMap<>(); // whether it has a text, whether it is inherited alone
        for (Element m : elements.getAllMembers(type)) {
            boolean open = m.getModifiers().contains(Modifier.PUBLIC) || m.getModifiers().contains(Modifier.PROTECTED);
            if (!open || elements.getModuleOf(m) != module || m.getKind() == ElementKind.RECORD_COMPONENT || elements.getOrigin(m) != Elements.Origin.EXPLICIT) {
                continue;
            }
            if (type.getKind() == ElementKind.ENUM && (m.getSimpleName().contentEquals("values") || m.getSimpleName().contentEquals("valueOf"))) {
                continue; // made by the compiler, although it says otherwise
            }
            if (BROUGHT.contains(m.getEnclosingElement().toString()) && m.getEnclosingElement() != type) {
                continue; // every type of its kind has these from the language
            }
            boolean own = m.getEnclosingElement() == type;
            if (m.getKind() == ElementKind.CONSTRUCTOR && !own) {
                continue;
            }
            String name = m.getKind() == ElementKind.CONSTRUCTOR ? type.getSimpleName().toString() : m.getSimpleName().toString();
            boolean[] was = names.computeIfAbsent(name, key -> new boolean[] {false, true});
            was[0] |= own && said(elements, m);
            was[1] &= !own;
        }
        String between = "";
        for (Map.Entry<String, boolean[]> e : names.entrySet()) {
            out.append(between).append("{\"name\":").append(quoted(e.getKey())).append(",\"text\":").append(e.getValue()[0]).append(",\"inherited\":").append(e.getValue()[1]).append("}");
            between = ",";
        }
    }

    static boolean said(Elements elements, Element e) {
        String doc = elements.getDocComment(e);
        return doc != null && !doc.replaceAll("(?s)\\n\\s*@.*", "").isBlank();
    }

    static String quoted(String s) {
        return "\"" + s.replace("\\", "\\\\").replace("\"", "\\\"") + "\"";
    }
}
