using System.Globalization;
using System.Text;
using UglyToad.PdfPig.Core;
using UglyToad.PdfPig.Tokens;

namespace CalmQuill.Documents.Pdf;

/// <summary>Copies objects of one PDF file into another, each once, with all that they refer to.</summary>
internal sealed class PdfCopy(PdfSource source, PdfFile file)
{
    /// <summary>So many objects of one file are copied at most.</summary>
    private const int MostObjects = 500_000;

    /// <summary>Arrays and dictionaries lie so deep in each other at most; what reads files allows as many.</summary>
    private const int MostDepth = 300;

    /// <summary>What a stream says of the document around it, which does not come along, or of files beside it (ISO 32000-1 §8.10.4, §14.5, §14.7).</summary>
    private static readonly HashSet<string> Around =
    [
        "Length",
        "Ref",
        "OPI",
        "Metadata",
        "PieceInfo",
        "LastModified",
        "StructParent",
        "StructParents",
        "F",
        "FFilter",
        "FDecodeParms",
        "AF",
    ];

    private readonly Dictionary<IndirectReference, int> numbers = [];
    private readonly Queue<IndirectReference> waiting = new();

    /// <summary>Something as it is written in the file it is copied into.</summary>
    public string Text(IToken token)
    {
        var text = new StringBuilder();
        Write(text, token, 0);
        return text.ToString();
    }

    /// <summary>A stream as an object of its own, with further entries in place of its own ones of these names.</summary>
    /// <param name="stream">The stream, as packed as it is.</param>
    /// <param name="entries">Entries that it gets.</param>
    public int Put(StreamToken stream, params (string Name, string Value)[] entries)
    {
        var number = file.Reserve();
        Put(number, stream, entries);
        return number;
    }

    /// <summary>Copies what was referred to and is not copied yet.</summary>
    /// <exception cref="PrintBudgetException">It is too much for one file.</exception>
    public void Finish()
    {
        while (waiting.TryDequeue(out var reference))
        {
            if (numbers.Count > MostObjects || file.Length > PdfExport.MostBytes)
                throw new PrintBudgetException($"This is too much for one file. Export fewer pages at once.");
            var number = numbers[reference];
            switch (source.Find(reference))
            {
                case StreamToken stream:
                    Put(number, stream, []);
                    break;
                case { } other:
                    file.Put(number, Text(other));
                    break;
                default:
                    file.Put(number, "null");
                    break;
            }
        }
    }

    private void Put(int number, StreamToken stream, (string Name, string Value)[] entries)
    {
        var head = new StringBuilder();
        foreach (var (name, value) in stream.StreamDictionary.Data)
        {
            if (Around.Contains(name) || entries.Any(entry => entry.Name == name))
                continue;
            Name(head, name);
            head.Append(' ');
            Write(head, value, 1);
            head.Append(' ');
        }

        foreach (var (name, value) in entries)
            head.Append('/').Append(name).Append(' ').Append(value).Append(' ');
        file.PutStream(number, stream.Data.Span, head.ToString());
    }

    private void Write(StringBuilder text, IToken token, int depth)
    {
        if (depth > MostDepth)
            throw new InvalidDataException("Objects of a PDF file lie in each other without end.");
        switch (token)
        {
            case IndirectReferenceToken reference:
                text.Append(CultureInfo.InvariantCulture, $"{NumberOf(reference.Data)} 0 R");
                break;
            case NumericToken number:
                text.Append(
                    number.HasDecimalPlaces && double.IsFinite(number.Data)
                        ? number.Data.ToString("0.##########", CultureInfo.InvariantCulture)
                        : number.Long.ToString(CultureInfo.InvariantCulture)
                );
                break;
            case NameToken name:
                Name(text, name.Data);
                break;
            case StringToken words:
                text.Append('<').Append(Convert.ToHexString(words.GetBytes())).Append('>');
                break;
            case HexToken hex:
                text.Append('<').Append(Convert.ToHexString(hex.Bytes)).Append('>');
                break;
            case BooleanToken truth:
                text.Append(truth.Data ? "true" : "false");
                break;
            case ArrayToken array:
                text.Append('[');
                foreach (var one in array.Data)
                {
                    Write(text, one, depth + 1);
                    text.Append(' ');
                }

                text.Append(']');
                break;
            case DictionaryToken dictionary:
                text.Append("<<");
                foreach (var (name, value) in dictionary.Data)
                {
                    Name(text, name);
                    text.Append(' ');
                    Write(text, value, depth + 1);
                    text.Append(' ');
                }

                text.Append(">>");
                break;
            case ObjectToken inner:
                Write(text, inner.Data, depth + 1);
                break;
            default:
                text.Append("null");
                break;
        }
    }

    private int NumberOf(IndirectReference reference)
    {
        if (numbers.TryGetValue(reference, out var known))
            return known;
        waiting.Enqueue(reference);
        return numbers[reference] = file.Reserve();
    }

    /// <summary>A name, in which all that is no plain sign is written by its number (§7.3.5).</summary>
    private static void Name(StringBuilder text, string name)
    {
        text.Append('/');
        foreach (var sign in Encoding.Latin1.GetBytes(name))
        {
            if (sign is > 0x20 and < 0x7F && !"()<>[]{}/%#".Contains((char)sign, StringComparison.Ordinal))
                text.Append((char)sign);
            else
                text.Append(CultureInfo.InvariantCulture, $"#{sign:X2}");
        }
    }
}
