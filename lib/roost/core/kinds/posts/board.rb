# frozen_string_literal: true

require "digest"

module Roost
  module Core
    module Kinds
      module Posts
        # All cards of a slide, by what the teacher did with them. Built on the board before, so
        # that only the cards of answers that changed are made.
        class Board
          # key:: what curation knows it by; stamp:: by which it is let through: of the key and of what is written;
          # state:: :up, :waiting (for the teacher) or :removed;
          # at:: when it was written, as the device says; column:: number from 0, or nil; name::
          # nil where the class isn't to know; likes:: how many; team:: name of the writer's, or nil
          Card = Struct.new(:key, :stamp, :text, :emoji, :picture, :at, :state, :pinned, :column, :name, :likes, :team,
                            keyword_init: true)
          # What of a board may be seen by all: the cards that are up in their columns, as
          # Posts#grouped gives them, how many more there are, and how many wait for the teacher.
          Shown = Struct.new(:groups, :beyond, :waiting, keyword_init: true) do
            def up = groups.flat_map(&:last)

            def empty? = up.empty?
          end
          Entry = Struct.new(:value, :name, :team, :cards)

          # Cards on one board; those beyond come up as others go.
          MOST_SHOWN = 200
          # More than there can be on one slide.
          MOST_CARDS = 1_000_000
          STAMP = 12 # characters
          private_constant :Entry, :MOST_CARDS, :STAMP

          # Cards that are to be seen, pinned ones first, in the order in which they were let
          # through; those that wait; those that were taken away.
          # @return [Array<Card>]
          attr_reader :up, :waiting, :removed

          # How many have added a card.
          # @return [Integer]
          attr_reader :answered

          # @param values [Hash{Integer=>Hash}] seat id to value
          # @param names [Hash{Integer=>String}] seat id to name
          # @param teams [Hash{Integer=>String}] seat id to the name of its team
          # @param curation [Session::Curation]
          # @param approve [Boolean] whether a card waits until the teacher lets it through
          # @param before [Board, nil]
          def initialize(values, names:, curation:, approve:, teams: {}, before: nil)
            @curation = curation
            @approve = approve
            @lists = %i[removed approved pinned].to_h { |list| [list, curation[list].each_with_index.to_h] }
            known = before && before.curation == curation && before.approve == approve ? before.entries : {}
            @likes = values.values.flat_map { |value| value["likes"] }.tally
            @entries = values.to_h do |seat_id, value|
              [seat_id, entry(seat_id, value, [names[seat_id], teams[seat_id]], known[seat_id])]
            end
            @answered = entries.count { |_, entry| entry.cards.any? }
            sort(entries.each_value.flat_map(&:cards))
            freeze
          end

          def empty? = up.empty? && waiting.empty? && removed.empty?

          # The cards that are up, as many as a board holds, without names unless they are to be seen.
          # @return [Array<Card>]
          def for_class(named:)
            named ? up.first(MOST_SHOWN) : up.first(MOST_SHOWN).map { |card| altered(card, name: nil) }
          end

          def ==(other) = other.is_a?(Board) && other.entries == entries && other.curation == curation && other.approve == approve

          protected

          attr_reader :entries, :curation, :approve

          private

          attr_reader :lists, :likes

          def entry(seat_id, value, writer, known)
            cards = if known.nil? || known.value != value || [known.name, known.team] != writer
                      value["posts"].map do |post|
                        card("#{seat_id}-#{post["id"]}", post, *writer, held: value["held"].to_a.include?(post["id"]))
                      end
                    elsif known.cards.all? { |card| card.likes == likes.fetch(card.key, 0) }
                      return known
                    else
                      known.cards.map { |card| altered(card, likes: likes.fetch(card.key, 0)) }
                    end
            Entry.new(value, *writer, cards.freeze).freeze
          end

          def card(key, post, name, team, held:)
            stamp = stamp(key, post)
            Card.new(key: key, stamp: stamp, text: post["text"], emoji: post["emoji"], state: state(key, stamp, held),
                     picture: Picture.from_document(post["picture"]), at: post["at"], pinned: lists[:pinned].key?(key),
                     column: curation.columns[key], name: name, team: team, likes: likes.fetch(key, 0)).freeze
          end

          # A card that was let through and is written anew waits again.
          def stamp(key, post)
            "#{key}-#{Digest::SHA256.hexdigest([post["text"], post["emoji"], post.dig("picture", "file")].inspect)[0, STAMP]}"
          end

          # @param held [Boolean] whether it waits although cards need not
          def state(key, stamp, held)
            return :removed if lists[:removed].key?(key)

            !(approve || held) || approved_at(key, stamp) ? :up : :waiting
          end

          # Under earlier versions cards were let through by their keys.
          def approved_at(key, stamp) = lists[:approved][stamp] || lists[:approved][key]

          def sort(cards)
            written = cards.sort_by.with_index { |card, place| (card.at * MOST_CARDS) + place }.group_by(&:state)
            up = written.fetch(:up, [])
            up = up.sort_by { |card| approved_at(card.key, card.stamp) } if approve
            @up = up.partition(&:pinned).flatten(1).freeze
            @waiting = written.fetch(:waiting, []).freeze
            @removed = written.fetch(:removed, []).freeze
          end

          def altered(card, **changes) = Card.new(**card.to_h, **changes).freeze
        end
      end
    end
  end
end
