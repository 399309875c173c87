using System.Text.Json;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Operations.Codecs;

/// <summary>Names of letters and how they look, in both forms.</summary>
internal static class LetterParts
{
    /// <summary>The most bytes of letters that one operation types: whether it may type so many the rules say.</summary>
    public const int MostBytes = WritingRules.MostLetters * 3;

    /// <summary>
    /// Who typed a letter that is named: nobody, where it is a bound of the text; the one named before; the operation itself; or another, which follows.
    /// </summary>
    private const int Bound = 0,
        Same = 1,
        Own = 2,
        Other = 3,
        Kinds = 4;

    /// <summary>How long what is said of a trait may be to be read.</summary>
    public static int MostBytesOf(Trait trait) =>
        WritingRules.Traits.TryGetValue(trait, out var rule) ? rule.MostBytesRead : TextRule.MostBytesUnknown;

    /// <summary>Writes names of letters, each after the one before.</summary>
    public sealed class Writer(ByteWriter writer)
    {
        private OpId last;

        /// <param name="letter">The letter.</param>
        /// <param name="flag">Which side of it is meant.</param>
        public void Write(LetterId letter, bool flag)
        {
            var kind =
                letter.IsBound ? Bound
                : letter.Operation == LetterId.Own ? Own
                : letter.Operation == last ? Same
                : Other;
            writer.Byte((byte)(kind + (flag ? Kinds : 0)));
            if (kind == Other)
                Parts.WriteId(writer, last = letter.Operation);
            writer.Signed(letter.Index);
        }

        public void Write(Edge edge) => Write(edge.Letter, edge.After);
    }

    public static Edge ReadEdge(ref ByteReader reader, ref OpId last)
    {
        var (letter, after) = Read(ref reader, ref last);
        return new Edge(letter, after);
    }

    /// <summary>The letter, and under the same name with “Behind” whether it is behind that.</summary>
    public static void WriteEdge(Utf8JsonWriter json, string name, Edge edge)
    {
        json.WriteString(name, edge.Letter.ToString());
        json.WriteBoolean(name + "Behind", edge.After);
    }

    public static Edge ReadEdge(JsonElement json, string name) => new(Read(json, name), json.GetProperty(name + "Behind").GetBoolean());

    public static (LetterId Letter, bool Flag) Read(ref ByteReader reader, ref OpId last)
    {
        var head = reader.Byte();
        if (head >= 2 * Kinds)
            throw new OperationFormatException("The data names a letter in a way that is not known here.");
        var operation = (head % Kinds) switch
        {
            Bound => default,
            Own => LetterId.Own,
            Same => last,
            _ => last = Parts.ReadId(ref reader),
        };
        return (new LetterId(operation, reader.Int32()), head >= Kinds);
    }

    public static LetterId Read(JsonElement json, string name) => LetterId.Parse(JsonParts.Text(json, name));

    public static void WriteLook(Utf8JsonWriter json, Trait trait, string value)
    {
        json.WriteString("trait", trait.ToString());
        json.WriteString("value", value);
    }

    public static Trait ReadTrait(JsonElement json) => Enum.Parse<Trait>(JsonParts.Text(json, "trait"));
}
