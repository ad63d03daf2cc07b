<svg class="logo" viewBox="0 0 26 26" fill="none" stroke="currentColor" stroke-width="2" stroke-linecap="round" aria-hidden="true">
    <path d="M3 21h20" />
    <path d="M7 21c0-7 3-8 6-9s5-3 5-6" />
    <path d="M13 12c-3-1-5-3-5-6 3 0 5 2 5 6zM18 8c3 0 4-1 5-4-3-1-5 1-5 4z" fill="currentColor" stroke-width="1" />
</svg>
