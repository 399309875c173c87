using System.Collections.Concurrent;
using System.Diagnostics;
using System.Net;
using System.Net.Sockets;
using System.Text;

namespace CalmQuill.MailServer;

/// <summary>A letter that arrived.</summary>
/// <param name="To">Whom it is for.</param>
/// <param name="Subject">Its subject.</param>
/// <param name="Text">Its text, soft line breaks undone.</param>
public sealed record ArrivedLetter(string To, string Subject, string Text);

/// <summary>A mail server in small: takes every letter (RFC 5321, the commands that are needed) and keeps it in memory to be looked at. It sends nothing on.</summary>
public sealed class LetterBox : IDisposable
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(10);
    private readonly TcpListener listener;
    private readonly ConcurrentQueue<ArrivedLetter> arrived = new();

    public LetterBox(int port)
    {
        listener = new TcpListener(IPAddress.Loopback, port);
        listener.Start();
        _ = Take();
    }

    public int Port => ((IPEndPoint)listener.LocalEndpoint).Port;

    public IReadOnlyCollection<ArrivedLetter> Arrived => arrived;

    /// <summary>The first letter to somebody, once it has arrived.</summary>
    /// <exception cref="TimeoutException">None arrived in ten seconds.</exception>
    public async Task<ArrivedLetter> To(string address)
    {
        for (var clock = Stopwatch.StartNew(); clock.Elapsed < Patience; await Task.Delay(20))
        {
            if (arrived.FirstOrDefault(letter => letter.To == address) is { } found)
                return found;
        }

        throw new TimeoutException($"No letter to {address} arrived.");
    }

    public void Dispose() => listener.Stop();

    private async Task Take()
    {
        while (true)
        {
            try
            {
                _ = Serve(await listener.AcceptTcpClientAsync());
            }
            catch (Exception ended) when (ended is ObjectDisposedException or SocketException)
            {
                return;
            }
        }
    }

    private async Task Serve(TcpClient client)
    {
        using (client)
        {
            try
            {
                await using var stream = client.GetStream();
                using var reader = new StreamReader(stream, Encoding.UTF8);
                await using var writer = new StreamWriter(stream, new UTF8Encoding(false)) { NewLine = "\r\n", AutoFlush = true };
                await Talk(reader, writer);
            }
            catch (IOException)
            {
                // The other side has hung up.
            }
        }
    }

    private async Task Talk(StreamReader reader, StreamWriter writer)
    {
        var to = "";
        await writer.WriteLineAsync("220 letter box");
        while (await reader.ReadLineAsync() is { } line)
        {
            var command = line.Length >= 4 ? line[..4].ToUpperInvariant() : line.ToUpperInvariant();
            switch (command)
            {
                case "RCPT":
                    to = line[(line.IndexOf('<', StringComparison.Ordinal) + 1)..].TrimEnd('>', ' ');
                    await writer.WriteLineAsync("250 ok");
                    break;
                case "DATA":
                    await writer.WriteLineAsync("354 go on");
                    arrived.Enqueue(await Read(reader, to));
                    await writer.WriteLineAsync("250 kept");
                    break;
                case "QUIT":
                    await writer.WriteLineAsync("221 bye");
                    return;
                case "EHLO" or "HELO" or "MAIL" or "RSET" or "NOOP":
                    await writer.WriteLineAsync("250 ok");
                    break;
                default:
                    await writer.WriteLineAsync("502 not here");
                    break;
            }
        }
    }

    private static async Task<ArrivedLetter> Read(StreamReader reader, string to)
    {
        var (subject, isQuoted, text, inHead) = ("", false, new StringBuilder(), true);
        while (await reader.ReadLineAsync() is { } line && line != ".")
        {
            if (inHead)
            {
                if (line.StartsWith("Subject: ", StringComparison.OrdinalIgnoreCase))
                    subject = line["Subject: ".Length..];
                if (line.StartsWith("Content-Transfer-Encoding: quoted-printable", StringComparison.OrdinalIgnoreCase))
                    isQuoted = true;
                inHead = line.Length > 0;
                continue;
            }

            // A line that begins with a full stop was sent with one more (§4.5.2).
            var own = line.StartsWith('.') ? line[1..] : line;
            if (isQuoted && own.EndsWith('='))
                text.Append(own[..^1]);
            else
                text.Append(own).Append('\n');
        }

        // Of quoted-printable (RFC 2045 §6.7), the equals sign is all that our letters need.
        return new ArrivedLetter(
            to,
            subject,
            isQuoted ? text.ToString().Replace("=3D", "=", StringComparison.OrdinalIgnoreCase) : text.ToString()
        );
    }
}
