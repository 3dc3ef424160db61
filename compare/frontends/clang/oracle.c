// The judge of C and C++: clang's own parser, by its C interface. It reads paths, one a line, and
// prints what each file itself declares as JSON, one declaration a line. Names that a macro makes
// up are left out, since they stand nowhere; those that are handed to one are wanted.
//
//     oracle MODE LANGUAGE [FLAG...] < paths
#include <clang-c/Index.h>
#include <ctype.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <time.h>

typedef struct { char *text; size_t size; } file_text;

static file_text whole;
static const char *path;
static CXTranslationUnit unit;
static int in_source;

static void quoted(const char *s) {
  putchar('"');
  for (; *s; s++) {
    if (*s == '"' || *s == '\\') putchar('\\');
    if ((unsigned char)*s >= 0x20) putchar(*s);
  }
  putchar('"');
}

// bare cuts the template arguments that clang puts behind some names.
static void bare(char *name) {
  if (strncmp(name, "operator", 8) == 0) {
    char *to = name + 8; // blanks in the names of operators are the author's
    for (char *from = name + 8; *from; from++) if (*from != ' ') *to++ = *from;
    *to = 0;
    return;
  }
  char *cut = strchr(name, '<');
  if (cut) *cut = 0;
}

static char *spelling(CXCursor c) {
  CXString s = clang_getCursorSpelling(c);
  char *out = strdup(clang_getCString(s) ? clang_getCString(s) : "");
  clang_disposeString(s);
  bare(out);
  return out;
}

// written reports whether a name stands at an offset of the file.
static int written(const char *name, unsigned offset) {
  size_t n = strlen(name);
  if (strncmp(name, "operator", 8) == 0) n = 8;
  if (name[0] == '~') n = 1;
  return offset + n <= whole.size && strncmp(whole.text + offset, name, n) == 0;
}

// behind is what ends a call of a macro: its bracket, or else a semicolon.
static const char *behind(const char *s) {
  const char *p = s;
  while (isalnum((unsigned char)*p) || *p == '_' || *p == ' ') p++;
  if (*p != '(') return strchr(s, ';');
  for (int depth = 0; *p; p++) {
    if (*p == '(') depth++;
    if (*p == ')' && --depth == 0) return p;
  }
  return NULL;
}

// called reports whether the call of a macro begins at an offset, or a name that is formed as those
// of macros are: what it declares may have names that it makes up.
static int called(unsigned offset) {
  const char *p = whole.text + offset;
  int upper = 1;
  if (!isalpha((unsigned char)*p) && *p != '_') return 0;
  for (; isalnum((unsigned char)*p) || *p == '_'; p++) upper = upper && !islower((unsigned char)*p);
  while (*p == ' ') p++;
  return *p == '(' || upper;
}

// place is where the name of a declaration stands in the file itself, or 0.
static unsigned place(CXCursor c, unsigned *offset) {
  CXFile file;
  unsigned line, column;
  CXSourceLocation at = clang_getCursorLocation(c);
  char *name = spelling(c);
  unsigned first = 0, at_first = 0, found = 0;
  for (int way = 0; way < 3 && !found; way++) { // an argument of a macro is where it is written
    if (way == 0) clang_getFileLocation(at, &file, &line, &column, offset);
    if (way == 1) clang_getSpellingLocation(at, &file, &line, &column, offset);
    if (way == 2) clang_getExpansionLocation(at, &file, &line, &column, offset);
    if (!file || !clang_Location_isFromMainFile(clang_getLocation(unit, file, line, column))) continue;
    if (written(name, *offset)) found = line;
    if (!first || way == 2) first = line, at_first = *offset; // what a macro makes up stands where that is called
  }
  if (!found && *name && first) { // the name may stand among the arguments of the macro there
    const char *s = whole.text + at_first, *end = behind(s);
    size_t n = strlen(name);
    for (const char *p = s; end && (p = strstr(p, name)) && p < end; p++) {
      if (isalnum((unsigned char)p[-1]) || p[-1] == '_' || isalnum((unsigned char)p[n]) || p[n] == '_') continue;
      *offset = p - whole.text;
      found = first;
      for (const char *q = s; q < p; q++) found += *q == '\n';
      break;
    }
  }
  free(name);
  if (!found) *offset = at_first;
  return found ? found : first;
}

// objects are the names of the macros without parameters that were seen, by their hash.
#define MOST_OBJECTS (1 << 18)
static char *objects[MOST_OBJECTS];
static CXSourceRange extents[MOST_OBJECTS]; // of their last definition in the unit at hand

static unsigned hashed(const char *name, size_t n) {
  unsigned h = 2166136261u;
  for (size_t i = 0; i < n; i++) h = (h ^ (unsigned char)name[i]) * 16777619u;
  return h & (MOST_OBJECTS - 1);
}

static enum CXChildVisitResult object(CXCursor c, CXCursor parent, CXClientData none) {
  if (clang_getCursorKind(c) == CXCursor_MacroDefinition && !clang_Cursor_isMacroFunctionLike(c)) {
    CXString s = clang_getCursorSpelling(c);
    const char *text = clang_getCString(s);
    unsigned h = hashed(text, strlen(text));
    while (objects[h] && strcmp(objects[h], text)) h = (h + 1) & (MOST_OBJECTS - 1);
    if (!objects[h]) objects[h] = strdup(text);
    extents[h] = clang_getCursorExtent(c);
    clang_disposeString(s);
  }
  return CXChildVisit_Continue;
}

// renamed reports whether a macro stands at an offset for another name.
static int renamed(unsigned offset) {
  const char *s = whole.text + offset;
  size_t n = 0;
  while (s[n] == '_' || (s[n] >= '0' && s[n] <= '9') || ((s[n] | 32) >= 'a' && (s[n] | 32) <= 'z')) n++;
  unsigned h = hashed(s, n);
  for (; n && objects[h]; h = (h + 1) & (MOST_OBJECTS - 1)) if (strlen(objects[h]) == n && strncmp(objects[h], s, n) == 0) {
    CXToken *tokens;
    unsigned count, a = 0, b = 0;
    clang_tokenize(unit, extents[h], &tokens, &count);
    if (count > 1) {
      clang_getFileLocation(clang_getRangeEnd(clang_getTokenExtent(unit, tokens[0])), NULL, NULL, NULL, &a);
      clang_getFileLocation(clang_getRangeStart(clang_getTokenExtent(unit, tokens[1])), NULL, NULL, NULL, &b);
    }
    int plain = count > 1 && count < 12 && a != b && clang_getTokenKind(tokens[1]) == CXToken_Identifier; // else it has parameters, or is no name
    for (unsigned i = 1; i < count && plain; i++) {
      CXString text = clang_getTokenSpelling(unit, tokens[i]);
      if (strcmp(clang_getCString(text), ";") == 0 || strcmp(clang_getCString(text), "*") == 0) plain = 0;
      clang_disposeString(text);
    }
    if (count) clang_disposeTokens(unit, tokens, count);
    return plain;
  }
  return 0;
}

// remarks are the comments of the file, in order.
typedef struct { unsigned from, to; } remark;
static remark *remarks;
static int remark_count;

static void find_remarks(void) {
  CXFile file = clang_getFile(unit, path);
  CXSourceRange all = clang_getRange(clang_getLocationForOffset(unit, file, 0), clang_getLocationForOffset(unit, file, whole.size));
  CXToken *tokens;
  unsigned n;
  clang_tokenize(unit, all, &tokens, &n);
  remarks = realloc(remarks, sizeof(remark) * (n + 1));
  remark_count = 0;
  for (unsigned i = 0; i < n; i++) {
    if (clang_getTokenKind(tokens[i]) != CXToken_Comment) continue;
    CXSourceRange r = clang_getTokenExtent(unit, tokens[i]);
    clang_getFileLocation(clang_getRangeStart(r), NULL, NULL, NULL, &remarks[remark_count].from);
    clang_getFileLocation(clang_getRangeEnd(r), NULL, NULL, NULL, &remarks[remark_count++].to);
  }
  clang_disposeTokens(unit, tokens, n);
}

// for_users reports whether a comment is one for users: rows of stars or slashes are ornaments.
static int for_users(remark r) {
  const char *s = whole.text + r.from;
  if (r.to - r.from < 4) return r.to - r.from == 3 && s[1] == '/' && (s[2] == '/' || s[2] == '!');
  if (s[1] == '*') return s[2] == '!' || (s[2] == '*' && s[3] != '*' && s[3] != '/');
  return s[2] == '!' || (s[2] == '/' && s[3] != '/');
}

static int trailing(remark r) { return r.to - r.from > 3 && whole.text[r.from + 3] == '<'; }

// of_others reports whether a comment says at its beginning that it is about a file or a group.
static int of_others(remark r) {
  const char *s = whole.text + r.from;
  while (s < whole.text + r.to && strchr("/*! \t\r\n<", *s)) s++;
  if (*s != '@' && *s != '\\') return s >= whole.text + r.to;
  static const char *words[] = {"file", "mainpage", "page", "defgroup", "addtogroup", "weakgroup", "dir", "package", "name", "example", "{", "}"};
  for (size_t i = 0; i < sizeof words / sizeof *words; i++)
    if (strncmp(s + 1, words[i], strlen(words[i])) == 0 && !strchr("abcdefghijklmnopqrstuvwxyz", s[1 + strlen(words[i])])) return 1;
  return 0;
}

// speaks reports whether nothing but blanks, other comments, words and branches of the
// preprocessor stand between two offsets.
static int speaks(unsigned from, unsigned to, const char *stops) {
  int k = 0;
  while (k < remark_count && remarks[k].to <= from) k++;
  for (unsigned i = from; i < to; i++) {
    if (k < remark_count && remarks[k].from == i) { i = remarks[k++].to - 1; continue; }
    char c = whole.text[i];
    if (strchr(stops, c) && c) return 0;
    if (c == '#') {
      const char *s = whole.text + i + 1;
      while (*s == ' ' || *s == '\t') s++;
      if (strncmp(s, "if", 2)) return 0;
      while (i < to && whole.text[i] != '\n') i++;
    }
  }
  return 1;
}

// documented reports whether a comment for users is attached to a declaration by where it stands.
static int documented(CXCursor c) {
  unsigned from = 0, to = 0;
  CXSourceRange extent = clang_getCursorExtent(c);
  clang_getFileLocation(clang_getRangeStart(extent), NULL, NULL, NULL, &from);
  clang_getFileLocation(clang_getRangeEnd(extent), NULL, NULL, NULL, &to);
  enum CXCursorKind kind = clang_getCursorKind(c);
  const char *stops = kind == CXCursor_EnumConstantDecl ? ";{},@" : ";{}@";
  for (int k = remark_count - 1; k >= 0; k--) {
    if (remarks[k].to > from) continue;
    if (!for_users(remarks[k]) || trailing(remarks[k])) continue;
    if (!speaks(remarks[k].to, from, stops)) break;
    if (of_others(remarks[k])) continue;
    return 1;
  }
  for (int k = 0; k < remark_count; k++) {
    if (remarks[k].from < to) continue;
    if (!for_users(remarks[k])) continue;
    if (!trailing(remarks[k])) break;
    unsigned at = to; // what ends the declaration may stand between
    for (; at < remarks[k].from && whole.text[at] != ';' && whole.text[at] != ','; at++);
    if (at < remarks[k].from) at++; else at = to;
    for (; at < remarks[k].from && strchr(" \t\r\n", whole.text[at]); at++);
    return at == remarks[k].from;
  }
  return 0;
}

typedef struct { CXCursor at[60000]; int n; } list;

static enum CXChildVisitResult gather(CXCursor c, CXCursor parent, CXClientData to) {
  list *l = to;
  if (l->n < 60000) l->at[l->n++] = c;
  return CXChildVisit_Continue;
}

static int parameters_before; // those of function types in the result of a template

static enum CXChildVisitResult count(CXCursor c, CXCursor parent, CXClientData n) {
  if (clang_getCursorKind(c) == CXCursor_ParmDecl) ++*(int *)n;
  return CXChildVisit_Continue;
}

static enum CXChildVisitResult parameter(CXCursor c, CXCursor parent, CXClientData first) {
  if (clang_getCursorKind(c) == CXCursor_ParmDecl && parameters_before-- <= 0) {
    char *name = spelling(c);
    if (!*(int *)first) putchar(',');
    *(int *)first = 0;
    quoted(name);
    free(name);
  }
  return CXChildVisit_Continue;
}

static void walk(CXCursor parent, const char *scope, int public);

static int made; // the declaration at hand has a name that a macro makes up

static void emit(CXCursor c, const char *name, unsigned line, const char *scope, int callable, int public, int comment_of) {
  printf("{\"file\":");
  quoted(path);
  printf(",\"line\":%u,\"name\":", line);
  quoted(name);
  printf(",\"scope\":");
  quoted(scope);
  if (callable) {
    int first = 1;
    printf(",\"params\":[");
    int n = clang_Cursor_getNumArguments(c);
    parameters_before = 0;
    if (n < 0) { // of a template
      int all = 0, own = clang_getNumArgTypes(clang_getCursorType(c));
      clang_visitChildren(c, count, &all);
      parameters_before = own >= 0 && all > own ? all - own : 0;
      clang_visitChildren(c, parameter, &first);
      parameters_before = 0;
    }
    for (int i = 0; i < n; i++) parameter(clang_Cursor_getArgument(c, i), c, &first);
    printf("]");
  }
  if (made) printf(",\"made\":true");
  printf(",\"documented\":%s,\"public\":%s}\n", documented(c) || comment_of ? "true" : "false", public ? "true" : "false");
}

// names is the declaration that gives a type without a name one, among those behind it.
static int names(list *l, int k) {
  CXCursor c = l->at[k];
  for (int n = k + 1; n < l->n && n < k + 3; n++) {
    enum CXCursorKind kind = clang_getCursorKind(l->at[n]);
    CXType type = clang_getCursorType(l->at[n]);
    if (kind == CXCursor_TypedefDecl) type = clang_getTypedefDeclUnderlyingType(l->at[n]);
    else if (kind != CXCursor_FieldDecl && kind != CXCursor_VarDecl) continue;
    for (int depth = 0; depth < 4; depth++) {
      if (type.kind == CXType_Pointer) type = clang_getPointeeType(type);
      else if (clang_getArrayElementType(type).kind != CXType_Invalid) type = clang_getArrayElementType(type);
    }
    if (clang_equalCursors(clang_getTypeDeclaration(type), c)) return n;
  }
  return -1;
}

static int nameless(CXCursor c) {
  CXString s = clang_getCursorSpelling(c);
  const char *text = clang_getCString(s);
  int none = clang_Cursor_isAnonymous(c) || !text || !*text || strstr(text, "(unnamed") || strstr(text, "(anonymous");
  clang_disposeString(s);
  return none;
}

static void walk(CXCursor parent, const char *scope, int public) {
  list *l = malloc(sizeof(list));
  l->n = 0;
  clang_visitChildren(parent, gather, l);
  char *taken = calloc(l->n + 1, 1);
  for (int k = 0; k < l->n; k++) {
    CXCursor c = l->at[k];
    enum CXCursorKind kind = clang_getCursorKind(c);
    if (kind == CXCursor_TypeAliasTemplateDecl) { // its name stands in the alias
      list *in = malloc(sizeof(list));
      in->n = 0;
      clang_visitChildren(c, gather, in);
      for (int i = 0; i < in->n; i++) if (clang_getCursorKind(in->at[i]) == CXCursor_TypeAliasDecl) c = in->at[i];
      free(in);
    }
    unsigned offset = 0, line = place(c, &offset);
    if (!line || taken[k]) continue;
    int callable = 0, type = 0;
    enum CX_CXXAccessSpecifier access = clang_getCXXAccessSpecifier(c);
    int seen = public && access != CX_CXXPrivate;
    switch (kind) {
    case CXCursor_Namespace: {
      char *name = spelling(c), inner[4096];
      int none = nameless(c) || clang_Cursor_isInlineNamespace(c); // what an inline one has is had by the one around it
      snprintf(inner, sizeof inner, "%s%s%s", scope, *scope && !none ? "." : "", none ? "" : name);
      walk(c, inner, public && !nameless(c));
      free(name);
      continue;
    }
    case CXCursor_LinkageSpec:
    case CXCursor_UnexposedDecl:
      walk(c, scope, public);
      continue;
    case CXCursor_StructDecl: case CXCursor_UnionDecl: case CXCursor_ClassDecl: case CXCursor_EnumDecl:
    case CXCursor_ClassTemplate: case CXCursor_ClassTemplatePartialSpecialization:
      type = 1;
      break;
    case CXCursor_FunctionDecl: case CXCursor_CXXMethod: case CXCursor_Constructor: case CXCursor_Destructor:
    case CXCursor_ConversionFunction: case CXCursor_FunctionTemplate:
      callable = 1;
      break;
    case CXCursor_FieldDecl: case CXCursor_EnumConstantDecl: case CXCursor_VarDecl: case CXCursor_TypedefDecl:
    case CXCursor_TypeAliasDecl: case CXCursor_TypeAliasTemplateDecl:
      break;
    default:
      continue;
    }
    if (type && !clang_isCursorDefinition(c) && clang_getCursorKind(clang_getSpecializedCursorTemplate(c)) != CXCursor_InvalidFile && !clang_Cursor_isNull(clang_getSpecializedCursorTemplate(c))) continue;
    char *name = spelling(c), inner[4096];
    if (type && nameless(c)) {
      int n = names(l, k);
      if (n < 0) {
        walk(c, scope, seen);
      } else {
        char *other = spelling(l->at[n]);
        unsigned at = 0, where = place(l->at[n], &at);
        int defined = clang_getCursorKind(l->at[n]) == CXCursor_TypedefDecl && clang_getTypedefDeclUnderlyingType(l->at[n]).kind != CXType_Pointer && clang_getArrayElementType(clang_getTypedefDeclUnderlyingType(l->at[n])).kind == CXType_Invalid;
        snprintf(inner, sizeof inner, "%s%s%s", scope, *scope ? "." : "", other);
        if (where && written(other, at)) {
          if (defined) {
            emit(l->at[n], other, where, scope, 0, seen, documented(c));
            taken[n] = 1;
            walk(c, inner, seen);
          } else if (kind == CXCursor_EnumDecl) {
            walk(c, scope, seen);
          } else if (clang_getCursorKind(l->at[n]) == CXCursor_FieldDecl) {
            emit(l->at[n], other, where, scope, 0, seen, 0);
            taken[n] = 1;
            walk(c, inner, seen);
          }
        }
        free(other);
      }
      free(name);
      continue;
    }
    int alone = 1; // a type that is only named along with something else is no declaration of its own
    if (type && !clang_isCursorDefinition(c) && *name) {
      const char *after = whole.text + offset + strlen(name);
      while ((strchr(" \t\r\n", *after) && *after) || *after == '#') {
        if (*after == '#') while (*after && *after != '\n') after++;
        else after++;
      }
      alone = *after == ';' || *after == ':' || *after == '<' || !written(name, offset);
    }
    if (*name && !written(name, offset) && renamed(offset)) { // it has another name where it is written
      size_t n = strcspn(whole.text + offset, " \t\r\n(){}[];,=*:/&");
      free(name);
      name = strndup(whole.text + offset, n);
    }
    if (!*name || name[0] == '<' || !written(name, offset) && !called(offset) || !alone) {
      free(name);
      continue;
    }
    char outer[4096];
    snprintf(outer, sizeof outer, "%s", scope);
    CXCursor home = clang_getCursorSemanticParent(c);
    if (!clang_equalCursors(home, clang_getCursorLexicalParent(c)) && clang_getCursorKind(home) != CXCursor_TranslationUnit && clang_getCursorKind(home) != CXCursor_Namespace) { // out of its class
      outer[0] = 0;
      CXCursor up = home;
      char *parts[64];
      int n = 0;
      for (; n < 64 && !clang_Cursor_isNull(up) && clang_getCursorKind(up) != CXCursor_TranslationUnit; up = clang_getCursorSemanticParent(up)) {
        if (clang_getCursorKind(up) == CXCursor_LinkageSpec || nameless(up) || clang_Cursor_isInlineNamespace(up)) continue;
        parts[n++] = spelling(up);
      }
      while (n-- > 0) { strcat(outer, parts[n]); if (n) strcat(outer, "."); }
    }
    enum CXLinkageKind linkage = clang_getCursorLinkage(c);
    if (!clang_Cursor_isNull(home) && linkage == CXLinkage_Internal && in_source) seen = 0;
    made = !written(name, offset);
    emit(c, name, line, outer, callable, seen, 0);
    made = 0;
    if (type) {
      snprintf(inner, sizeof inner, "%s%s%s", outer, *outer ? "." : "", name);
      walk(c, inner, seen);
    }
    free(name);
  }
  free(taken);
  free(l);
}

// guards reports whether a macro is the one that keeps the file from being read twice.
static int guards(const char *name, unsigned offset) {
  size_t n = strlen(name);
  const char *value = whole.text + offset + n;
  while (*value == ' ' || *value == '\t' || *value == '1') value++;
  if (*value != '\n' && *value != '\r' && *value != '/') return 0;
  for (const char *s = strstr(whole.text, name); s && s < whole.text + offset; s = strstr(s + 1, name)) {
    const char *before = s;
    while (before > whole.text && strchr(" \t(", before[-1])) before--;
    if (s[n] != '_' && before - whole.text > 6 && (strncmp(before - 6, "ifndef", 6) == 0 || strncmp(before - 7, "defined", 7) == 0) && whole.text + offset - s < 400) {
      for (const char *line = whole.text; line && line < s; line = strchr(line, '\n') ? strchr(line, '\n') + 1 : 0) { // nothing was defined before it
        const char *word = line;
        if (*word == '#') word++;
        while (*word == ' ' || *word == '\t') word++;
        if (*line == '#' && strncmp(word, "define", 6) == 0) return 0;
      }
      return 1;
    }
  }
  return 0;
}

// macros prints those that the file defines, with their parameters as they are written.
static enum CXChildVisitResult macro(CXCursor c, CXCursor parent, CXClientData none) {
  if (clang_getCursorKind(c) != CXCursor_MacroDefinition) return CXChildVisit_Continue;
  unsigned offset = 0, line = place(c, &offset);
  char *name = spelling(c);
  if (line && written(name, offset) && !guards(name, offset)) {
    printf("{\"file\":");
    quoted(path);
    printf(",\"line\":%u,\"name\":\"#%s\",\"scope\":\"\",\"public\":%s", line, name, in_source ? "false" : "true");
    const char *s = whole.text + offset + strlen(name);
    if (*s == '(') {
      int first = 1;
      printf(",\"params\":[");
      for (s++; *s && *s != ')';) {
        while (*s && strchr(" \t\r\n\\,", *s)) s++;
        if (s[0] == '/' && s[1] == '*') { s = strstr(s, "*/") + 2; continue; }
        const char *from = s;
        while (*s && !strchr(" \t\r\n\\,)/", *s)) s++;
        if (s > from) {
          printf(first ? "\"%.*s\"" : ",\"%.*s\"", (int)(s - from), from);
          first = 0;
        }
      }
      printf("]");
    }
    printf("}\n");
  }
  free(name);
  return CXChildVisit_Continue;
}

int main(int argc, char **argv) {
  int timed = strcmp(argv[1], "time") == 0;
  double spent = 0;
  char line[4096];
  CXIndex index = clang_createIndex(0, 0);
  while (fgets(line, sizeof line, stdin)) {
    line[strcspn(line, "\n")] = 0;
    path = line;
    const char *flags[256];
    int n = 0;
    flags[n++] = "-x";
    flags[n++] = argv[2];
    flags[n++] = strcmp(argv[2], "c") == 0 ? "-std=gnu2x" : "-std=gnu++20";
    flags[n++] = "-w";
    flags[n++] = "-ferror-limit=0";
    for (int i = 3; i < argc && n < 250; i++) flags[n++] = argv[i];
    FILE *f = fopen(path, "rb");
    if (!f) continue;
    fseek(f, 0, SEEK_END);
    whole.size = ftell(f);
    rewind(f);
    whole.text = malloc(whole.size + 1);
    whole.size = fread(whole.text, 1, whole.size, f);
    whole.text[whole.size] = 0;
    fclose(f);
    struct timespec a, b;
    clock_gettime(CLOCK_MONOTONIC, &a);
    unit = NULL;
    enum CXErrorCode failed = clang_parseTranslationUnit2(index, path, flags, n, NULL, 0,
      timed ? 0 : CXTranslationUnit_DetailedPreprocessingRecord | CXTranslationUnit_SkipFunctionBodies | CXTranslationUnit_KeepGoing, &unit);
    clock_gettime(CLOCK_MONOTONIC, &b);
    spent += (b.tv_sec - a.tv_sec) + (b.tv_nsec - a.tv_nsec) / 1e9;
    const char *ext = strrchr(path, '.');
    in_source = ext && (strcmp(ext, ".c") == 0 || strcmp(ext, ".cc") == 0 || strcmp(ext, ".cpp") == 0 || strcmp(ext, ".cxx") == 0);
    int bad = failed != CXError_Success;
    for (unsigned d = 0; !bad && d < clang_getNumDiagnostics(unit); d++) {
      CXDiagnostic diagnostic = clang_getDiagnostic(unit, d);
      if (clang_getDiagnosticSeverity(diagnostic) >= CXDiagnostic_Error) {
        bad = 1;
        if (getenv("ORACLE_WHY")) {
          CXString text = clang_formatDiagnostic(diagnostic, CXDiagnostic_DisplaySourceLocation);
          fprintf(stderr, "%s: %s\n", path, clang_getCString(text));
        }
      }
      clang_disposeDiagnostic(diagnostic);
    }
    if (!timed) {
      if (bad) {
        printf("{\"file\":");
        quoted(path);
        printf(",\"refused\":true}\n");
      } else {
        clang_visitChildren(clang_getTranslationUnitCursor(unit), object, NULL);
        find_remarks();
        walk(clang_getTranslationUnitCursor(unit), "", 1);
        clang_visitChildren(clang_getTranslationUnitCursor(unit), macro, NULL);
        CXFile file = clang_getFile(unit, path);
        CXSourceRangeList *off = clang_getSkippedRanges(unit, file);
        for (unsigned i = 0; off && i < off->count; i++) {
          unsigned from, to;
          clang_getFileLocation(clang_getRangeStart(off->ranges[i]), NULL, &from, NULL, NULL);
          clang_getFileLocation(clang_getRangeEnd(off->ranges[i]), NULL, &to, NULL, NULL);
          printf("{\"file\":");
          quoted(path);
          printf(",\"off\":[%u,%u]}\n", from, to);
        }
        if (off) clang_disposeSourceRangeList(off);
      }
    }
    if (unit) clang_disposeTranslationUnit(unit);
    free(whole.text);
  }
  if (timed) printf("%.6f\n", spent);
  clang_disposeIndex(index);
  return 0;
}
