using System.Collections.Concurrent;
using System.Net;
using System.Net.Sockets;
using System.Text;

namespace CalmQuill.Testing;

/// <summary>A small site of the web on this machine, with what a test puts there.</summary>
public sealed class WebStand : IDisposable
{
    private readonly ConcurrentDictionary<string, (int Status, string Type, byte[] Body)> pages = new();
    private readonly ConcurrentQueue<string> asked = new();
    private readonly HttpListener listener = new();

    public WebStand()
    {
        // A port that is free now; somebody else may take it meanwhile, then another is.
        for (var tries = 0; !listener.IsListening; tries++)
        {
            using (var probe = new TcpListener(IPAddress.Loopback, 0))
            {
                probe.Start();
                Host = probe.LocalEndpoint.ToString()!;
            }

            listener.Prefixes.Clear();
            listener.Prefixes.Add($"http://{Host}/");
            try
            {
                listener.Start();
            }
            catch (HttpListenerException) when (tries < 5) { }
        }

        _ = Serve();
    }

    /// <summary>Its address and port.</summary>
    public string Host { get; private set; } = "";

    /// <summary>What it was asked for, in order.</summary>
    public IReadOnlyList<string> Asked => [.. asked];

    public string At(string path) => $"http://{Host}{path}";

    public void Put(string path, string type, string body) => Put(path, type, Encoding.UTF8.GetBytes(body));

    public void Put(string path, string type, byte[] body) => pages[path] = (200, type, body);

    /// <summary>Leads on to another address.</summary>
    public void Lead(string path, string address) => pages[path] = (302, address, []);

    public void Dispose() => listener.Close();

    private async Task Serve()
    {
        while (listener.IsListening)
        {
            HttpListenerContext context;
            try
            {
                context = await listener.GetContextAsync();
            }
            catch (Exception problem) when (problem is HttpListenerException or ObjectDisposedException)
            {
                return;
            }

            var path = context.Request.Url!.AbsolutePath;
            asked.Enqueue(path);
            var (status, type, body) = pages.GetValueOrDefault(path, (404, "text/plain", []));
            context.Response.StatusCode = status;
            if (status == 302)
                context.Response.RedirectLocation = type;
            else
                context.Response.ContentType = type;
            try
            {
                await context.Response.OutputStream.WriteAsync(body);
                context.Response.Close();
            }
            catch (Exception problem) when (problem is HttpListenerException or IOException)
            {
                // Whoever asked heard enough.
            }
        }
    }
}
