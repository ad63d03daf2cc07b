<hx-partial hx-target="#rule-says" hx-swap="innerHTML">
    <p class="error" data-at="{{ $error->at }}" data-length="{{ $error->length }}">
        <span class="where"
            >{{ mb_substr($words, max(0, $error->at - 12), min(12, $error->at)) }}<mark
                >{{ mb_substr($words, $error->at, min(24, $error->length)) ?: '…' }}</mark
            ></span
        >
        {{ $error->getMessage() }}
    </p>
</hx-partial>
