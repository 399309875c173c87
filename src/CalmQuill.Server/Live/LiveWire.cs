using CalmQuill.Store.Documents;

namespace CalmQuill.Server.Live;

/// <summary>A live message as bytes, for the way to the other servers.</summary>
internal static class LiveWire
{
    private enum Of : byte
    {
        Text,
        Whole,
        Long,
        Bytes,
        Texts,
    }

    public static byte[] Write(LiveMessage message, Guid server)
    {
        using var stream = new MemoryStream();
        using var writer = new BinaryWriter(stream);
        writer.Write(server.ToByteArray());
        writer.Write(LiveMessage.Address(message.Document));
        writer.Write(message.Method);
        writer.Write(message.But ?? "");
        writer.Write((byte)message.Arguments.Length);
        foreach (var argument in message.Arguments)
            Write(writer, argument);
        return stream.ToArray();
    }

    /// <summary>Null for what this server sent itself.</summary>
    public static LiveMessage? Read(byte[] bytes, Guid server)
    {
        using var reader = new BinaryReader(new MemoryStream(bytes));
        if (new Guid(reader.ReadBytes(16)) == server || LiveMessage.Read(reader.ReadString()) is not { } document)
            return null;
        var (method, but) = (reader.ReadString(), reader.ReadString());
        var arguments = new object[reader.ReadByte()];
        for (var i = 0; i < arguments.Length; i++)
            arguments[i] = Read(reader);
        return new LiveMessage(document, method, arguments, bytes.Length, but.Length > 0 ? but : null);
    }

    private static void Write(BinaryWriter writer, object argument)
    {
        switch (argument)
        {
            case string text:
                writer.Write((byte)Of.Text);
                writer.Write(text);
                break;
            case int whole:
                writer.Write((byte)Of.Whole);
                writer.Write(whole);
                break;
            case long number:
                writer.Write((byte)Of.Long);
                writer.Write(number);
                break;
            case byte[] piece:
                writer.Write((byte)Of.Bytes);
                writer.Write(piece.Length);
                writer.Write(piece);
                break;
            case string[] texts:
                writer.Write((byte)Of.Texts);
                writer.Write(texts.Length);
                foreach (var one in texts)
                    writer.Write(one);
                break;
            default:
                throw new InvalidOperationException($"{argument.GetType().Name} is not passed on between servers.");
        }
    }

    private static object Read(BinaryReader reader) =>
        (Of)reader.ReadByte() switch
        {
            Of.Text => reader.ReadString(),
            Of.Whole => reader.ReadInt32(),
            Of.Long => reader.ReadInt64(),
            Of.Bytes => reader.ReadBytes(reader.ReadInt32()),
            _ => Enumerable.Range(0, reader.ReadInt32()).Select(_ => reader.ReadString()).ToArray(),
        };
}
