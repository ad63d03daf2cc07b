<?php

declare(strict_types=1);

/** A person's browser, as far as requests go. */
final class Client
{
    private CurlHandle $curl;

    private string $token = '';

    /** The shelf that this page has, as it says to the server. */
    private string $shelf = '';

    /** The last answer that told where project and desk stand. */
    private string $told = '';

    public function __construct(private readonly string $base)
    {
        $this->curl = curl_init();
        curl_setopt_array($this->curl, [
            CURLOPT_RETURNTRANSFER => true,
            CURLOPT_COOKIEFILE => '',
            CURLOPT_TIMEOUT => 120,
            CURLOPT_ENCODING => 'gzip',
        ]);
    }

    public function signIn(string $email, string $password): void
    {
        $page = $this->get('/sign-in');
        $this->readToken($page);
        $this->post('/sign-in', http_build_query(['_token' => $this->token, 'email' => $email, 'password' => $password]), 302);
    }

    public function open(string $path): void
    {
        $page = $this->get($path);
        $this->readToken($page);
    }

    /** The revisions that this page has heard of, as its pulse says them. */
    public function known(): string
    {
        preg_match('~data-revision="(\d+)"\s+data-desk="(\d+)"~', $this->told, $found);

        return 'revision='.($found[1] ?? 0).'&desk='.($found[2] ?? 0);
    }

    public function get(string $path, int $expected = 200): string
    {
        curl_setopt_array($this->curl, [
            CURLOPT_URL => $this->base.$path,
            CURLOPT_HTTPGET => true,
            CURLOPT_HTTPHEADER => ['HX-Request: true'],
        ]);

        return $this->send($path, $expected);
    }

    public function post(string $path, string $body, int $expected = 200): string
    {
        curl_setopt_array($this->curl, [
            CURLOPT_URL => $this->base.$path,
            CURLOPT_POST => true,
            CURLOPT_POSTFIELDS => $body.($this->shelf === '' ? '' : "&shelf=$this->shelf"),
            CURLOPT_HTTPHEADER => ["X-CSRF-TOKEN: $this->token", 'HX-Request: true'],
        ]);

        return $this->send($path, $expected);
    }

    private function send(string $path, int $expected): string
    {
        $answer = (string) curl_exec($this->curl);
        $status = curl_getinfo($this->curl, CURLINFO_RESPONSE_CODE);
        if ($status !== $expected) {
            throw new RuntimeException("$path answered $status: ".substr(strip_tags($answer), 0, 300));
        }

        if (preg_match('~data-stamp="([^"]+)"~', $answer, $stamp) === 1) {
            $this->shelf = $stamp[1];
        }
        if (str_contains($answer, 'data-revision=')) {
            $this->told = $answer;
        }

        return $answer;
    }

    private function readToken(string $page): void
    {
        preg_match('~name="csrf-token" content="([^"]+)"~', $page, $found);
        $this->token = $found[1] ?? '';
    }
}
