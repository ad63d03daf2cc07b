<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration {
    public function up(): void
    {
        Schema::create('share_links', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('project_id')->constrained()->cascadeOnDelete();
            // Whoever made it: the link shows nothing once they may not see the project any more.
            $table->foreignId('user_id')->constrained()->cascadeOnDelete();
            $table->string('hash', 64)->unique();
            // The token, encrypted, so that the link can be copied again.
            $table->text('token');
            $table->string('name', 120);
            $table->string('views', 2000);
            $table->boolean('as_pictures')->default(false);
            $table->boolean('may_pick')->default(false);
            $table->boolean('may_comment')->default(false);
            $table->string('password')->default('');
            $table->timestampTz('ends_at');
            $table->timestampTz('revoked_at')->nullable();
            $table->integer('visits')->default(0);
            $table->timestampTz('visited_at')->nullable();
            $table->timestampTz('made_at')->useCurrent();
        });
        Schema::create('guest_comments', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('project_id')->constrained()->cascadeOnDelete();
            $table->integer('view_no');
            $table->foreignId('share_link_id')->nullable()->constrained()->nullOnDelete();
            $table->string('by', 60);
            $table->string('words', 1000);
            // Metres in the model; null for words about the view as a whole.
            $table->jsonb('place')->nullable();
            $table->boolean('done')->default(false);
            $table->timestampTz('made_at')->useCurrent();
            $table->index(['project_id', 'view_no']);
        });
    }

    public function down(): void
    {
        Schema::dropIfExists('guest_comments');
        Schema::dropIfExists('share_links');
    }
};
