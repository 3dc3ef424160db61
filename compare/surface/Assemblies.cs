using System;
using System.Collections.Generic;
using System.IO;
using System.Linq;
using System.Reflection;

/// <summary>
/// Lists what users can name of assemblies that a compiler has made of folders of C#: the public
/// types of each namespace, and the public and protected members that they declare. The assembly
/// of a folder is called as the folder is, and lies in the folder that the argument names.
/// Constructors are left out: those that the compiler makes cannot be told from those that
/// somebody wrote.
/// </summary>
static class Assemblies
{
    const BindingFlags All = BindingFlags.Public | BindingFlags.NonPublic | BindingFlags.Instance | BindingFlags.Static | BindingFlags.DeclaredOnly;

    static void Main(string[] arguments)
    {
        for (string folder; (folder = Console.ReadLine()) != null;)
        {
            string name = Path.GetFileName(folder.TrimEnd('/'));
            Assembly assembly = Assembly.LoadFrom(Path.Combine(arguments[0], name + ".dll"));
            var spaces = assembly.GetExportedTypes().Where(t => !t.IsNested).GroupBy(t => t.Namespace ?? "global");
            Console.WriteLine("{\"folder\":" + Quoted(folder) + ",\"name\":" + Quoted(name) + ",\"entries\":[" + string.Join(",", spaces.Select(Space)) + "]}");
        }
    }

    static string Space(IGrouping<string, Type> types)
    {
        var names = types.GroupBy(t => Plain(t.Name)).Select(of => "{\"name\":" + Quoted(of.Key) + ",\"members\":[" +
            string.Join(",", of.SelectMany(Members).Distinct().Select(m => "{\"name\":" + Quoted(m) + "}")) + "]}");
        return "{\"as\":" + Quoted(types.Key) + ",\"names\":[" + string.Join(",", names) + "]}";
    }

    static IEnumerable<string> Members(Type type)
    {
        if (typeof(MulticastDelegate).IsAssignableFrom(type))
        {
            yield break; // those of delegates are the compiler's
        }
        foreach (MemberInfo m in type.GetMembers(All))
        {
            bool explicitly = m.Name.IndexOf('.') > 0; // for one interface alone
            if (explicitly || Has(m, "CompilerGeneratedAttribute"))
            {
                continue;
            }
            string name = Named(m);
            if (name != null)
            {
                yield return name;
            }
        }
    }

    /// <summary>What users call a member by, or null where they cannot.</summary>
    static string Named(MemberInfo m)
    {
        if (m is MethodInfo method)
        {
            return Open(method) && !method.IsSpecialName && method.Name != "Finalize" ? Plain(method.Name) : null;
        }
        if (m is FieldInfo field)
        {
            return !field.IsSpecialName && (field.IsPublic || field.IsFamily || field.IsFamilyOrAssembly) ? field.Name : null;
        }
        if (m is PropertyInfo property)
        {
            return !property.GetAccessors(true).Any(Open) ? null : property.GetIndexParameters().Length > 0 ? "this[]" : property.Name;
        }
        if (m is EventInfo happens)
        {
            return Open(happens.GetAddMethod(true)) ? happens.Name : null;
        }
        var inner = m as Type;
        return inner != null && (inner.IsNestedPublic || inner.IsNestedFamily || inner.IsNestedFamORAssem) ? Plain(inner.Name) : null;
    }

    static bool Open(MethodBase m) { return m.IsPublic || m.IsFamily || m.IsFamilyOrAssembly; }

    static bool Has(MemberInfo m, string attribute) { return m.GetCustomAttributesData().Any(a => a.Constructor.DeclaringType.Name == attribute); }

    static string Plain(string name) { int arity = name.IndexOf('`'); return arity < 0 ? name : name.Substring(0, arity); }

    static string Quoted(string text) { return "\"" + text.Replace("\\", "\\\\").Replace("\"", "\\\"") + "\""; }
}
