# frozen_string_literal: true

module Roost
  module Operations
    # Saves one slide from the builder. Reads and writes that slide only, so that it costs
    # the same in a long lesson. Where somebody saved a newer version of this slide meanwhile,
    # both changes stand if they are in different fields. A field that both changed stays as it is until the
    # editor has said whose is to stand; everything else is saved meanwhile: so nobody's work is overwritten.
    class EditSlide
      NEWER = "%s changed the same meanwhile. Yours is still here, and everything else is saved."
      TOO_OLD = "%s has changed this slide since, and nothing here is saved. Copy what you need, then reload."
      GONE = "This slide is no longer in the lesson. Undo, or reload the page."

      # head:: Store::Lessons::Head after the save; slide:: Core::Slide as it is now
      Saved = Struct.new(:head, :slide, keyword_init: true)
      # The value of a refusal. beside:: {path => value} of what the editor has saved since the rev she looks at
      Clash = Struct.new(:beside, keyword_init: true)

      # @param rev [Integer] the slide's rev that the editor was looking at
      # @param beside [Hash{Array=>Object}] as Clash has it, while a clash stands
      # @param mine_stands [Boolean] whether the editor wants hers where both changed the same
      # @yieldparam slide [Core::Slide]
      # @yieldreturn [Core::Reading] of the changed slide
      # @return [Core::Reading, nil] of Saved; refused with a Clash; nil when there is no such lesson
      def call(account_id, lesson_id, slide_id, rev:, beside: {}, mine_stands: false)
        lessons = Store::Lessons.new
        lessons.transaction do
          head = lessons.head(account_id, lesson_id, lock: true)
          next nil if head.nil? || head.deleted

          slide = lessons.slide(lesson_id, slide_id)
          next Core::Reading.refused(GONE) unless slide

          base = base(lesson_id, slide, rev, beside)
          next Core::Reading.refused(format(TOO_OLD, author(account_id, lesson_id, slide_id, rev))) unless base

          yield(base).and_then do |mine|
            # Who has changed nothing goes on with what she sees.
            next Core::Reading.ok(Saved.new(head: head, slide: beside.any? ? slide : base).freeze) if mine == base
            next Core::Reading.ok(save(account_id, head, slide, mine)) if base.equal?(slide)

            stand, clash = parted(base, mine, slide, mine_stands)
            saved = stand.any? ? both(account_id, head, slide, stand) : Saved.new(head: head, slide: slide).freeze
            next Core::Reading.ok(saved) if clash.empty?

            sentence = format(NEWER, author(account_id, lesson_id, slide_id, rev))
            Core::Reading.new(Clash.new(beside: beside.merge(stand)), sentence)
          end
        end
      end

      private

      # What the editor began with: the slide as it was at that rev, with what she has saved since.
      def base(lesson_id, slide, rev, beside)
        was = slide.rev == rev ? slide : (rev && Store::Revisions.new.slide_at(lesson_id, slide.id, rev))
        return was if was.nil? || beside.empty?

        Core::Slide.from_document(Core::DocumentChanges.with(was.to_document, beside))
      end

      def save(account_id, head, before, after)
        kept = after.with(rev: before.rev + 1)
        Saved.new(head: Store::Lessons.new.save_slide(account_id, head, kept, field: field(before, kept)), slide: kept).freeze
      end

      # @return [Array(Hash, Hash)] what the editor changed that can be saved, and what both changed
      def parted(base, mine, theirs, mine_stands)
        changes = Core::DocumentChanges.between(base.to_document, mine.to_document)
        return [changes, {}] if mine_stands

        Core::DocumentChanges.parted(changes, base.to_document, theirs.to_document)
      end

      # The present slide with what the editor changed.
      def both(account_id, head, slide, changes)
        save(account_id, head, slide, Core::Slide.from_document(Core::DocumentChanges.with(slide.to_document, changes)))
      end

      # The one field that changed, or nil.
      def field(before, after)
        paths = Core::DocumentChanges.between(before.to_document, after.to_document).keys
        paths.one? ? [after.id, *paths.first].join("/") : nil
      end

      # A colleague who has changed the slide since; her own window only where nobody else has.
      def author(account_id, lesson_id, slide_id, rev)
        revisions = Store::Revisions.new
        colleague = revisions.colleague_since(lesson_id, slide_id, rev, account_id)
        return colleague if colleague

        revisions.last_change(lesson_id, slide_id)&.account_id == account_id ? "Another window of yours" : "Somebody"
      end
    end
  end
end
