<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/**
 * Of the rungs that a view keeps, those that its pictures take over, packed settings; null where they take over all, as those of views that
 * were there before do. And what a person ticked when they kept a view last.
 */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('views', static fn (Blueprint $table) => $table->binary('meant')->nullable());
        Schema::table('desks', static fn (Blueprint $table) => $table->json('keeping')->default('{}'));
    }

    public function down(): void
    {
        Schema::table('views', static fn (Blueprint $table) => $table->dropColumn('meant'));
        Schema::table('desks', static fn (Blueprint $table) => $table->dropColumn('keeping'));
    }
};
