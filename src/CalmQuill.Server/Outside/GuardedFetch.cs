using System.Net;
using System.Net.Sockets;

namespace CalmQuill.Server.Outside;

/// <summary>Fetches what lies at an address of the web for somebody: from public addresses only, so much and no more, and not for ever.</summary>
internal sealed class GuardedFetch(IHttpClientFactory clients)
{
    /// <summary>The client that only reaches public addresses.</summary>
    public const string Client = "outside";

    private const int Seconds = 15,
        MostRedirections = 3;

    /// <summary>Why nothing was fetched.</summary>
    public enum Problem
    {
        None,

        /// <summary>It is no address of the web.</summary>
        NoAddress,

        /// <summary>It lies in the server's own network.</summary>
        Inside,

        /// <summary>It answered that it has nothing.</summary>
        Refused,

        TooLarge,

        /// <summary>It did not answer, or not in time.</summary>
        Silent,
    }

    /// <param name="Bytes">What was fetched; empty where nothing was.</param>
    /// <param name="Type">The kind that it is said to be, such as <c>text/html</c>; empty where nothing is said.</param>
    /// <param name="At">Where it lay in the end.</param>
    /// <param name="Problem">Why nothing was.</param>
    /// <param name="Status">What was answered then.</param>
    public sealed record Fetched(byte[] Bytes, string Type, Uri? At, Problem Problem, int Status = 0);

    /// <summary>Fetches what lies at an address.</summary>
    /// <param name="address">The address, with its scheme.</param>
    /// <param name="most">So many bytes at most.</param>
    /// <param name="isCut">Whether more is cut off there; else it is refused.</param>
    /// <param name="cancel">Gives up.</param>
    public async Task<Fetched> Get(string address, int most, bool isCut, CancellationToken cancel)
    {
        if (!Uri.TryCreate(address, UriKind.Absolute, out var uri) || uri.Scheme is not ("http" or "https"))
            return Failed(Problem.NoAddress);
        using var timeout = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        timeout.CancelAfter(TimeSpan.FromSeconds(Seconds));
        try
        {
            using var client = clients.CreateClient(Client);
            using var answer = await client.GetAsync(uri, HttpCompletionOption.ResponseHeadersRead, timeout.Token);
            if (!answer.IsSuccessStatusCode)
                return Failed(Problem.Refused, (int)answer.StatusCode);
            await using var body = await answer.Content.ReadAsStreamAsync(timeout.Token);
            using var kept = new MemoryStream();
            var buffer = new byte[64 * 1024];
            for (int read; (read = await body.ReadAsync(buffer, timeout.Token)) > 0; )
            {
                if (kept.Length + read > most)
                {
                    if (!isCut)
                        return Failed(Problem.TooLarge);
                    kept.Write(buffer, 0, (int)(most - kept.Length));
                    break;
                }

                kept.Write(buffer, 0, read);
            }

            var type = answer.Content.Headers.ContentType?.MediaType ?? "";
            return new Fetched(kept.ToArray(), type, answer.RequestMessage?.RequestUri ?? uri, Problem.None);
        }
        catch (HttpRequestException problem) when (IsForbidden(problem))
        {
            return Failed(Problem.Inside);
        }
        catch (Exception problem)
            when (problem is HttpRequestException or IOException
                || (problem is OperationCanceledException && !cancel.IsCancellationRequested)
            )
        {
            return Failed(Problem.Silent);
        }
    }

    /// <summary>Connects to public addresses only, after the name was looked up, so that nobody reaches the server's own network through it; and to hosts that the settings allow.</summary>
    public static SocketsHttpHandler Handler(IReadOnlyCollection<string> allowedHosts) =>
        new()
        {
            AllowAutoRedirect = true,
            MaxAutomaticRedirections = MostRedirections,
            UseProxy = false,
            UseCookies = false,
            ConnectCallback = async (context, cancel) =>
            {
                var host = context.DnsEndPoint;
                var name = host.Host.Trim('[', ']');
                var addresses = IPAddress.TryParse(name, out var literal) ? [literal] : await Dns.GetHostAddressesAsync(name, cancel);
                var open = allowedHosts.Contains($"{host.Host}:{host.Port}") ? addresses : [.. addresses.Where(PublicAddresses.IsPublic)];
                if (open.Length == 0)
                    throw new ForbiddenAddressException();
                var socket = new Socket(SocketType.Stream, ProtocolType.Tcp) { NoDelay = true };
                try
                {
                    await socket.ConnectAsync(open, host.Port, cancel);
                    return new NetworkStream(socket, ownsSocket: true);
                }
                catch
                {
                    socket.Dispose();
                    throw;
                }
            },
        };

    private static Fetched Failed(Problem problem, int status = 0) => new([], "", null, problem, status);

    /// <summary>Whether the connection was refused by <see cref="Handler"/>, however deep that lies.</summary>
    private static bool IsForbidden(Exception? problem)
    {
        for (; problem is not null; problem = problem.InnerException)
        {
            if (problem is ForbiddenAddressException)
                return true;
        }

        return false;
    }

    private sealed class ForbiddenAddressException : IOException;
}
